package knollfield.app.security;

import java.time.LocalDate;
import knollfield.app.shared.Style;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** Signing in: what is asked and what is answered. */
final class SignInViews {

    private SignInViews() {}

    /**
     * @param unit in which distances are written
     * @param zone of every time of day, a region of the time zone database
     */
    record Me(
            @Nullable Long id,
            @Nullable String name,
            @Nullable Role role,
            LocalDate today,
            String workshop,
            String currency,
            int currencyDigits,
            DistanceUnit unit,
            Style.NumberStyle numbers,
            String zone,
            boolean firstRun) {}

    /** @param code of the second device, six digits; only where the account asks for one */
    record SignIn(String signIn, String password, @Nullable String code) {}

    record OwnPassword(String current, String password) {}

    record FirstManager(String code, String signIn, String name, String password) {}
}
