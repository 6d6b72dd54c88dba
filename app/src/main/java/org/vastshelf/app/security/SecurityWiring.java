package org.vastshelf.app.security;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.security.authorization.AuthorityAuthorizationManager;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.authorization.AuthorizationManager;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AuthorizeHttpRequestsConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.RequestAuthorizationContext;

/** Pages with a session and CSRF tokens; the API with HTTP Basic and neither. */
@Configuration
class SecurityWiring {

    private static final String POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
                    + "font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    @Bean
    @Order(1)
    SecurityFilterChain api(HttpSecurity http) throws Exception {
        return http.securityMatcher("/api/**", "/actuator/prometheus")
                .authorizeHttpRequests(SecurityWiring::routes)
                .httpBasic(basic -> basic.realmName("Vast Shelf"))
                .exceptionHandling(refused -> refused.accessDeniedHandler(new Refusals()))
                .csrf(csrf -> csrf.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .build();
    }

    @Bean
    @Order(2)
    SecurityFilterChain pages(HttpSecurity http) throws Exception {
        return http.authorizeHttpRequests(SecurityWiring::routes)
                .formLogin(form -> form.loginPage("/sign-in").defaultSuccessUrl("/", false))
                .exceptionHandling(refused -> refused.accessDeniedHandler(new Refusals()))
                .logout(out -> out.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?out"))
                .headers(headers -> headers.contentSecurityPolicy(csp -> csp.policyDirectives(POLICY))
                        .referrerPolicy(r -> r.policy(
                                org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter
                                        .ReferrerPolicy.SAME_ORIGIN)))
                .build();
    }

    private static void routes(
            AuthorizeHttpRequestsConfigurer<HttpSecurity>.AuthorizationManagerRequestMatcherRegistry registry) {
        for (Routes.Route route : Routes.all()) {
            registry.requestMatchers(route.method(), route.pattern()).access(manager(route.access()));
        }
        registry.anyRequest().denyAll();
    }

    private static AuthorizationManager<RequestAuthorizationContext> manager(Access access) {
        return access == Access.OPEN
                ? (who, where) -> new AuthorizationDecision(true)
                : AuthorityAuthorizationManager.hasAnyAuthority(
                        access.roles().stream().map(Role::name).toArray(String[]::new));
    }
}
