package knollfield.app.own;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import knollfield.app.estimate.Estimates;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.Throttle;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** An owner's private page, for whoever has its address. */
@Hidden
@RestController
@RequestMapping(path = OwnerLinks.PATH, produces = MediaType.TEXT_HTML_VALUE)
class OwnerPageController {

    private static final MediaType HTML = MediaType.parseMediaType("text/html;charset=UTF-8");

    private final OwnerLinks links;
    private final OwnAnswers answers;
    private final Estimates estimates;
    private final OwnerPage page;
    private final Throttle throttle;

    OwnerPageController(OwnerLinks links, OwnAnswers answers, Estimates estimates, OwnerPage page, Throttle throttle) {
        this.links = links;
        this.answers = answers;
        this.estimates = estimates;
        this.page = page;
        this.throttle = throttle;
    }

    @GetMapping("{secret}")
    ResponseEntity<String> open(@PathVariable String secret, HttpServletRequest request) {
        return guarded(request, () -> ok(page.asking(links.open(secret), OwnerPage.Typed.nothing())));
    }

    @PostMapping(path = "{secret}", consumes = MediaType.APPLICATION_FORM_URLENCODED_VALUE)
    ResponseEntity<String> answer(
            @PathVariable String secret,
            @RequestParam(required = false, defaultValue = "") Set<String> agree,
            @RequestParam(required = false, defaultValue = "") String name,
            @RequestParam(required = false, defaultValue = "") String slot,
            @RequestParam(required = false, defaultValue = "") String refused,
            HttpServletRequest request) {
        return guarded(request, () -> {
            OwnerLinks.Opened opened = links.open(secret);
            List<String> open = estimates
                    .standing(opened.job(), opened.estimate().estimate())
                    .stream()
                    .filter(Consent.OfLine::isOpen)
                    .map(l -> l.line().code())
                    .toList();
            List<String> agreed = open.stream().filter(agree::contains).toList();
            List<String> left = open.stream().filter(c -> !agree.contains(c)).toList();
            OwnerLinks.Given given =
                    new OwnerLinks.Given(agreed, left, refused.equals("yes"), name.strip(), OwnerPage.time(slot));
            List<FieldProblem> needed = needed(opened, given);
            try {
                if (!needed.isEmpty()) {
                    throw new InvalidInput(needed);
                }
                return ok(page.thanks(opened, given, links.answer(secret, given)));
            } catch (InvalidInput e) {
                return html(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        page.asking(links.open(secret), new OwnerPage.Typed(agreed, name.strip(), slot, outside(e))));
            }
        });
    }

    /** Lines without which there is no job, left unticked. */
    private List<FieldProblem> needed(OwnerLinks.Opened o, OwnerLinks.Given given) {
        if (given.refused()) {
            return List.of();
        }
        return o.estimate().estimate().lines().stream()
                .filter(l -> given.leave().contains(l.code()))
                .filter(l -> !answers.mayLeave(o.job(), l))
                .map(Estimate.Line::code)
                .distinct()
                .map(c -> new FieldProblem("/agree/" + c, "Tick it, or say no to the whole job below."))
                .toList();
    }

    /** Who else may speak for an owner is nobody's business here. */
    private static List<FieldProblem> outside(InvalidInput e) {
        return e.mayInsist()
                ? List.of(new FieldProblem(
                        "/saidBy",
                        "The owner has named who may answer, and this name is not among them. "
                                + "Write the name as the owner gave it, or ring us."))
                : e.problems();
    }

    private ResponseEntity<String> guarded(HttpServletRequest request, Supplier<ResponseEntity<String>> asked) {
        Duration wait = throttle.ask(request.getRemoteAddr());
        if (!wait.isZero()) {
            return ResponseEntity.status(HttpStatus.TOO_MANY_REQUESTS)
                    .header(HttpHeaders.RETRY_AFTER, Long.toString(wait.toSeconds() + 1))
                    .contentType(HTML)
                    .body(page.closed("That was too often within a minute. Please wait a little and try again."));
        }
        try {
            return asked.get();
        } catch (NotFound e) {
            return html(HttpStatus.NOT_FOUND, page.closed(String.valueOf(e.getMessage())));
        } catch (OwnerLinks.Closed e) {
            return html(HttpStatus.GONE, page.closed(String.valueOf(e.getMessage())));
        } catch (Conflict e) {
            return html(HttpStatus.CONFLICT, page.closed(String.valueOf(e.getMessage())));
        }
    }

    private static ResponseEntity<String> ok(String html) {
        return html(HttpStatus.OK, html);
    }

    private static ResponseEntity<String> html(HttpStatus status, String html) {
        return ResponseEntity.status(status)
                .contentType(HTML)
                .cacheControl(CacheControl.noStore())
                .header("X-Robots-Tag", "noindex, nofollow, noarchive")
                .header("Referrer-Policy", "no-referrer")
                .body(html);
    }
}
