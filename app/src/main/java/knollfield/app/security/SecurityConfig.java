package knollfield.app.security;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import knollfield.app.once.DoneRequestRepository;
import knollfield.app.once.OnceFilter;
import knollfield.app.problem.Problem;
import org.springframework.boot.security.autoconfigure.web.servlet.SecurityFilterProperties;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.Authentication;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import tools.jackson.databind.json.JsonMapper;

/** How requests are let in: {@link Access} says who may call what. */
@Configuration
class SecurityConfig {

    private static boolean mayCall(Authentication who, HttpServletRequest request) {
        String path = request.getRequestURI().substring(request.getContextPath().length());
        return Access.of(HttpMethod.valueOf(request.getMethod()), path).includes(Sessions.role(who));
    }

    private static void headers(HeadersConfigurer<HttpSecurity> h) {
        h.contentSecurityPolicy(p ->
                p.policyDirectives("default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
                        + "object-src 'none'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'"));
    }

    /**
     * Owners' private pages and readings that come with a key: whoever has the address or key may. There is no session and
     * no cookie that another page could ride on, so nothing else is asked for.
     */
    @Bean
    @Order(1)
    SecurityFilterChain privatePages(HttpSecurity http) {
        return http.securityMatcher("/answer/**", "/api/readings", "/api/control/**")
                .authorizeHttpRequests(a -> a.anyRequest().permitAll())
                .csrf(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(c -> c.disable())
                .headers(SecurityConfig::headers)
                .build();
    }

    @Bean
    SecurityFilterChain chain(
            HttpSecurity http,
            JsonMapper json,
            SecurityContextRepository contexts,
            PersonRepository people,
            DoneRequestRepository requests,
            CsrfTokenRepository tokens) {
        return http.authorizeHttpRequests(a -> a.requestMatchers("/api/**")
                        .access((who, request) -> new AuthorizationDecision(mayCall(who.get(), request.getRequest())))
                        // the interface itself holds no data
                        .anyRequest()
                        .permitAll())
                .addFilterBefore(new Sessions(people), AuthorizationFilter.class)
                .addFilterAfter(new OnceFilter(requests, json), AuthorizationFilter.class)
                .csrf(c -> c.spa().csrfTokenRepository(tokens))
                .securityContext(c -> c.securityContextRepository(contexts))
                .requestCache(c -> c.disable())
                .headers(SecurityConfig::headers)
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, failure) -> write(
                                json, response, Problem.of("signed-out", "Not signed in", 401, "Sign in to go on.")))
                        .accessDeniedHandler((request, response, failure) -> write(
                                json,
                                response,
                                Problem.of(
                                        "not-allowed",
                                        "Not allowed",
                                        403,
                                        "Your sign-in may not do this; a manager can."))))
                .build();
    }

    @Bean
    FilterRegistrationBean<BodyGate> bodyGate(JsonMapper json) {
        FilterRegistrationBean<BodyGate> gate = new FilterRegistrationBean<>(new BodyGate(json));
        gate.setOrder(SecurityFilterProperties.DEFAULT_FILTER_ORDER - 1);
        gate.setDispatcherTypes(DispatcherType.REQUEST);
        gate.setAsyncSupported(true);
        return gate;
    }

    /** Tokens that changes need; in a cookie the screens read. */
    @Bean
    CsrfTokenRepository tokens() {
        return CookieCsrfTokenRepository.withHttpOnlyFalse();
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    static PasswordEncoder passwords() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    private static void write(JsonMapper json, HttpServletResponse response, Problem problem) throws IOException {
        response.setStatus(problem.status());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json.writeValueAsBytes(problem));
    }
}
