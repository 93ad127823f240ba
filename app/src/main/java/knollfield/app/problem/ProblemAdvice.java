package knollfield.app.problem;

import java.util.List;
import java.util.stream.Collectors;
import knollfield.core.jobcard.CardNotProven;
import knollfield.core.jobcard.CardRefused;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.exc.InvalidTypeIdException;

/** Turns failures into problems, once, at the edge. */
@RestControllerAdvice
class ProblemAdvice {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler
    ResponseEntity<Problem> invalid(InvalidInput e) {
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                422,
                String.valueOf(e.getMessage()),
                e.problems(),
                e.mayInsist() ? Problem.INSIST : null));
    }

    @ExceptionHandler
    ResponseEntity<Problem> conflict(Conflict e) {
        return answer(Problem.of("conflict", "Changed by somebody else", 409, String.valueOf(e.getMessage())));
    }

    @ExceptionHandler
    ResponseEntity<Problem> duplicate(DuplicateKeyException e) {
        LOG.debug("duplicate key", e);
        return answer(Problem.of(
                "conflict", "Changed by somebody else", 409, "This is already there; nothing was saved. Load again."));
    }

    @ExceptionHandler
    ResponseEntity<Problem> notFound(NotFound e) {
        return answer(Problem.of("not-found", "Not found", 404, String.valueOf(e.getMessage())));
    }

    /** The book gives no card that keeps every law: each breach with its law and its place in the book. */
    @ExceptionHandler
    ResponseEntity<Problem> notProven(CardNotProven e) {
        return answer(new Problem(
                "/problems/card-not-proven",
                "The book does not give a card that can be worked",
                409,
                e.getMessage() + " The job can be planned, not started; put it right under Engines.",
                e.breaches().stream()
                        .map(b -> new FieldProblem(
                                "/family/build#" + b.thing(),
                                "%s (law %s)."
                                        .formatted(
                                                b.words(),
                                                b.laws().stream()
                                                        .map(l -> l.number() + ", " + l.words())
                                                        .collect(Collectors.joining("; ")))))
                        .toList(),
                null));
    }

    @ExceptionHandler
    ResponseEntity<Problem> refused(CardRefused e) {
        String type = switch (e.kind()) {
            case GATE_SHUT -> "gate-shut";
            case UNIT_GUARD -> "unit-guard";
            case NOT_ALLOWED -> "not-allowed-on-card";
            case ALREADY_SIGNED -> "already-signed";
            case PAUSED -> "job-waits";
            case AWAITS_OWNER -> "awaits-owner";
            default -> "card-refused";
        };
        String suggestion =
                e.judgement().flatMap(j -> j.guard()).map(Enum::name).orElse(null);
        return answer(new Problem(
                "/problems/" + type,
                "The card does not take this",
                e.kind() == CardRefused.Kind.NOT_ALLOWED ? 403 : 422,
                String.valueOf(e.getMessage()),
                List.of(),
                suggestion,
                e.judgement().map(x -> x.entered().newtonMetres()).orElse(null)));
    }

    @ExceptionHandler
    ResponseEntity<Problem> tooLarge(MaxUploadSizeExceededException e) {
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                413,
                "The file is larger than 12 MB.",
                List.of(new FieldProblem("/file", "The file is larger than 12 MB.")),
                null));
    }

    @ExceptionHandler
    ResponseEntity<Problem> unreadable(HttpMessageNotReadableException e) {
        boolean unknownKind = e.getCause() instanceof InvalidTypeIdException;
        if (e.getCause() instanceof JacksonException jackson
                && (unknownKind || !jackson.getPath().isEmpty())) {
            String pointer = jackson.getPath().stream()
                            .map(r -> "/" + (r.getPropertyName() == null ? r.getIndex() : r.getPropertyName()))
                            .collect(Collectors.joining())
                    + (unknownKind ? "/type" : "");
            return answer(new Problem(
                    "/problems/invalid-input",
                    "Invalid input",
                    400,
                    "The value at %s cannot be read.".formatted(pointer),
                    List.of(new FieldProblem(pointer, "This value cannot be read.")),
                    null));
        }
        return answer(Problem.of("unreadable", "Unreadable request", 400, "The request's body is not readable JSON."));
    }

    @ExceptionHandler
    ResponseEntity<Problem> mismatch(MethodArgumentTypeMismatchException e) {
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                400,
                "The value of %s cannot be read.".formatted(e.getName()),
                List.of(new FieldProblem("/" + e.getName(), "This value cannot be read.")),
                null));
    }

    /** Parameters of an address, bound to one object. */
    @ExceptionHandler
    ResponseEntity<Problem> unbound(BindException e) {
        List<FieldProblem> problems = e.getFieldErrors().stream()
                .map(f -> new FieldProblem("/" + f.getField(), "This value cannot be read."))
                .distinct()
                .toList();
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                400,
                "The value of %s cannot be read."
                        .formatted(e.getFieldErrors().stream()
                                .map(FieldError::getField)
                                .distinct()
                                .collect(Collectors.joining(", "))),
                problems,
                null));
    }

    @ExceptionHandler
    ResponseEntity<Problem> other(Exception e) throws Exception {
        if (e instanceof ErrorResponse known) {
            HttpStatus status = HttpStatus.valueOf(known.getStatusCode().value());
            return answer(Problem.of("http", status.getReasonPhrase(), status.value(), status.getReasonPhrase()));
        }
        if (e instanceof org.springframework.security.access.AccessDeniedException
                || e instanceof org.springframework.security.core.AuthenticationException) {
            throw e;
        }
        LOG.error("unexpected failure", e);
        return answer(Problem.of(
                "unexpected",
                "Something went wrong here",
                500,
                "Nothing was saved. Try again; the server's log has more."));
    }

    private static ResponseEntity<Problem> answer(Problem problem) {
        return ResponseEntity.status(problem.status())
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(problem);
    }
}
