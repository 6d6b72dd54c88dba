package org.vastshelf.app.security;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.AuthenticationProvider;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.authentication.event.InteractiveAuthenticationSuccessEvent;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.unit.ShortText;

/** Signs people in against the directory; wrong tries are counted, slowed down and written down. */
@Component
class SignIn implements AuthenticationProvider {

    private static final int LONGEST_NAME = 64;

    private final Directory directory;
    private final ThrottleStore throttle;
    private final Deeds deeds;
    private final ShelfClock clock;

    SignIn(Directory directory, ThrottleStore throttle, Deeds deeds, ShelfClock clock) {
        this.directory = directory;
        this.throttle = throttle;
        this.deeds = deeds;
        this.clock = clock;
    }

    @Override
    public Authentication authenticate(Authentication request) {
        String uid = request.getName();
        String address = address(request);
        Instant now = clock.real();
        rest(throttle.pause(uid, address, now));
        if (uid.length() > LONGEST_NAME || !directory.authenticates(uid, String.valueOf(request.getCredentials()))) {
            throttle.failed(uid, address, now);
            deeds.note(
                    ShortText.of(uid, LONGEST_NAME),
                    address,
                    Deeds.Kind.SIGN_IN,
                    "/sign-in",
                    false,
                    "name or password is wrong");
            throw new BadCredentialsException("Name or password is wrong");
        }
        throttle.succeeded(uid);
        Person person = directory.person(uid).orElseThrow();
        Role role = Role.of(person.groups());
        return UsernamePasswordAuthenticationToken.authenticated(
                new Someone(person, role), null, List.of(new SimpleGrantedAuthority(role.name())));
    }

    /** Somebody signed in on the page; calls of the API sign in each time and are not noted one by one. */
    @EventListener
    void signedIn(InteractiveAuthenticationSuccessEvent event) {
        deeds.note(
                event.getAuthentication().getName(),
                address(event.getAuthentication()),
                Deeds.Kind.SIGN_IN,
                "/sign-in",
                true,
                "signed in");
    }

    private static String address(Authentication request) {
        return request.getDetails() instanceof WebAuthenticationDetails details ? details.getRemoteAddress() : "";
    }

    private static void rest(Duration pause) {
        try {
            Thread.sleep(pause);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public boolean supports(Class<?> type) {
        return UsernamePasswordAuthenticationToken.class.isAssignableFrom(type);
    }
}
