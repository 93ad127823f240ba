package knollfield.app.security;

import static org.springframework.http.HttpMethod.GET;
import static org.springframework.http.HttpMethod.POST;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import knollfield.app.problem.Problem;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import tools.jackson.databind.json.JsonMapper;

/** Who may call what. Roles decide by path and method, so that one table shows it all. */
@Configuration
class SecurityConfig {

    private static final String MANAGER = Role.MANAGER.name();
    private static final String DESK = Role.FRONT_DESK.name();
    private static final String BENCH = Role.TECHNICIAN.name();
    private static final String FLEET = Role.FLEET_CONTACT.name();

    private static void headers(HeadersConfigurer<HttpSecurity> h) {
        h.contentSecurityPolicy(p ->
                p.policyDirectives("default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
                        + "object-src 'none'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'"));
    }

    /**
     * Owners' private pages and readings that come with a key: whoever has the address or key may. There is no session and no cookie that another page could
     * ride on, so nothing else is asked for.
     */
    @Bean
    @Order(1)
    SecurityFilterChain privatePages(HttpSecurity http) {
        return http.securityMatcher("/answer/**", "/api/readings")
                .authorizeHttpRequests(a -> a.anyRequest().permitAll())
                .csrf(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(c -> c.disable())
                .headers(SecurityConfig::headers)
                .build();
    }

    @Bean
    SecurityFilterChain chain(
            HttpSecurity http, JsonMapper json, SecurityContextRepository contexts, PersonRepository people) {
        return http.authorizeHttpRequests(a -> a.requestMatchers(
                                "/api/me", "/api/sign-in", "/api/first-run", "/api/openapi")
                        .permitAll()
                        .requestMatchers("/api/sign-out", "/api/me/password", "/api/me/sign-out-everywhere")
                        .authenticated()
                        .requestMatchers("/api/setup/**")
                        .hasRole(MANAGER)
                        .requestMatchers("/api/imports/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers("/api/desk/views/**")
                        .hasAnyRole(MANAGER, DESK, BENCH, FLEET)
                        .requestMatchers(
                                GET,
                                "/api/desk/**",
                                "/api/vehicles/**",
                                "/api/find/**",
                                "/api/fleets/**",
                                "/api/ahead/**")
                        .hasAnyRole(MANAGER, DESK, BENCH, FLEET)
                        .requestMatchers("/api/fleets/**")
                        .hasRole(MANAGER)
                        .requestMatchers("/api/calculations/**")
                        .hasAnyRole(MANAGER, DESK, BENCH, FLEET)
                        .requestMatchers(POST, "/api/vehicle-readings")
                        .hasAnyRole(MANAGER, DESK, BENCH, FLEET)
                        .requestMatchers("/api/own/**")
                        .hasRole(FLEET)
                        .requestMatchers(POST, "/api/vehicles/*/readings")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers(
                                POST,
                                "/api/vehicles/*/evidence",
                                "/api/vehicles/*/breakdowns",
                                "/api/vehicles/*/fault-codes")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers(POST, "/api/vehicles/*/aftercare/**")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers("/api/vehicles/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers(
                                GET, "/api/jobs/*/card/photos/**", "/api/jobs/*/record/**", "/api/jobs/*/record.pdf")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers("/api/jobs/*/card/**")
                        .hasAnyRole(MANAGER, BENCH)
                        .requestMatchers("/api/practice/**", "/api/practice-course")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers(GET, "/api/engines/**", "/api/parts/**")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers("/api/engines/**")
                        .hasRole(MANAGER)
                        .requestMatchers("/api/parts/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers("/api/jobs/*/private-page/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers(GET, "/api/jobs/**")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers("/api/jobs/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers(
                                "/api/owners/**",
                                "/api/told/**",
                                "/api/month/**",
                                "/api/letters/**",
                                "/api/outbox/**",
                                "/api/silent-feeds")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers("/api/recall/**")
                        .hasAnyRole(MANAGER, DESK)
                        .requestMatchers("/api/board/feeds/**")
                        .hasRole(MANAGER)
                        .requestMatchers(GET, "/api/board/**", "/api/stores/**")
                        .hasAnyRole(MANAGER, DESK, BENCH)
                        .requestMatchers(
                                "/api/board/plan/**",
                                "/api/board/what-if/**",
                                "/api/board/absences/**",
                                "/api/board/fleets/**")
                        .hasRole(MANAGER)
                        .requestMatchers("/api/board/**", "/api/stores/**")
                        .hasAnyRole(MANAGER, DESK)
                        // whoever has a feed's private address may read it; a calendar program cannot sign in
                        .requestMatchers(GET, "/api/feeds/*")
                        .permitAll()
                        .requestMatchers("/api/**")
                        .denyAll()
                        // the interface itself holds no data
                        .anyRequest()
                        .permitAll())
                .addFilterBefore(new Sessions(people), AuthorizationFilter.class)
                .csrf(c -> c.spa())
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
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    PasswordEncoder passwords() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    private static void write(JsonMapper json, HttpServletResponse response, Problem problem) throws IOException {
        response.setStatus(problem.status());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json.writeValueAsBytes(problem));
    }
}
