package knollfield.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import knollfield.app.problem.InvalidInput;
import knollfield.app.settings.WorkshopSettings;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** One's own account: where it is signed in, and its second factor. */
@RestController
@RequestMapping("/api/me")
class AccountController {

    /** Where the secret waits until the device has shown that it has it. */
    private static final String OFFERED = "offered-second-factor";

    private final CurrentPerson current;
    private final People people;
    private final Devices devices;
    private final Tries tries;
    private final WorkshopSettings settings;

    AccountController(CurrentPerson current, People people, Devices devices, Tries tries, WorkshopSettings settings) {
        this.current = current;
        this.people = people;
        this.devices = devices;
        this.tries = tries;
        this.settings = settings;
    }

    /**
     * @param place network address it was begun from
     * @param kind such as {@code Chrome on Android}
     * @param here whether it is the one that asks
     */
    record DeviceView(UUID key, Instant since, String place, String kind, boolean here) {}

    /** @param secondFactor whether signing in asks for one */
    record AccountView(boolean secondFactor, List<DeviceView> devices) {}

    /**
     * @param secret Base32, for who cannot take the picture
     * @param picture of the address, row by row; {@code #} is dark
     */
    record OfferedFactor(String secret, List<String> picture) {}

    record FactorCode(String code) {}

    record FactorOff(String current) {}

    @GetMapping("/account")
    AccountView account(HttpServletRequest request) {
        long id = current.get().id();
        return new AccountView(
                people.withSecondFactor().contains(id),
                devices.of(id).stream()
                        .map(d -> new DeviceView(
                                d.key(), d.since(), d.place(), d.kind(), devices.is(d, request.getSession(false))))
                        .toList());
    }

    /** Ends one session of whoever asks. */
    @DeleteMapping("/devices/{key}")
    AccountView end(@PathVariable UUID key, HttpServletRequest request) {
        devices.end(current.get().id(), key);
        return account(request);
    }

    /** Offers a secret for a second device; nothing is asked for until {@link #confirm}. */
    @PostMapping("/second-factor")
    OfferedFactor offer(HttpServletRequest request) {
        String secret = SecondFactor.secret();
        request.getSession(true).setAttribute(OFFERED, secret);
        return new OfferedFactor(
                secret,
                SecondFactor.picture(SecondFactor.address(
                        settings.get().name(), current.get().signIn(), secret)));
    }

    /** From now on signing in asks for the device's code too. */
    @PostMapping("/second-factor/confirmation")
    AccountView confirm(@RequestBody FactorCode body, HttpServletRequest request) {
        HttpSession session = request.getSession(true);
        if (!(session.getAttribute(OFFERED) instanceof String secret)) {
            throw new InvalidInput("/code", "No second device was offered here; begin again.");
        }
        people.secondFactor(current.get().id(), secret, body.code());
        session.removeAttribute(OFFERED);
        return account(request);
    }

    /** Signing in asks for the password alone again; needs it once more. */
    @PostMapping("/second-factor/off")
    AccountView off(@RequestBody FactorOff body, HttpServletRequest request) {
        Person person = current.get();
        tries.ask(person.signIn(), request.getRemoteAddr());
        try {
            people.checkOwn(person.id(), body.current());
        } catch (InvalidInput e) {
            tries.wrong(person.signIn(), request.getRemoteAddr());
            throw e;
        }
        people.noSecondFactor(person.id());
        Sessions.begin(request.getSession(true));
        return account(request);
    }
}
