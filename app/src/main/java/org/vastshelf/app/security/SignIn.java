package org.vastshelf.app.security;

import java.util.List;
import org.springframework.security.authentication.AuthenticationProvider;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.stereotype.Component;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Person;

/** Signs people in against the directory. */
@Component
class SignIn implements AuthenticationProvider {

    private final Directory directory;
    private final Throttle throttle;

    SignIn(Directory directory, Throttle throttle) {
        this.directory = directory;
        this.throttle = throttle;
    }

    @Override
    public Authentication authenticate(Authentication request) {
        String uid = request.getName();
        if (throttle.isClosed(uid)) {
            throw new LockedException(
                    "Too many failed sign-ins as '" + uid + "'; wait " + Throttle.PAUSE.toMinutes() + " minutes");
        }
        if (!directory.authenticates(uid, String.valueOf(request.getCredentials()))) {
            throttle.failed(uid);
            throw new BadCredentialsException("Name or password is wrong");
        }
        throttle.succeeded(uid);
        Person person = directory.person(uid).orElseThrow();
        Role role = Role.of(person.groups());
        return UsernamePasswordAuthenticationToken.authenticated(
                new Someone(person, role), null, List.of(new SimpleGrantedAuthority(role.name())));
    }

    @Override
    public boolean supports(Class<?> type) {
        return UsernamePasswordAuthenticationToken.class.isAssignableFrom(type);
    }
}
