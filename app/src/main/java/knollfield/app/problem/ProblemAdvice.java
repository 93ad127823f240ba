package knollfield.app.problem;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import knollfield.core.jobcard.CardNotProven;
import knollfield.core.jobcard.CardRefused;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.transaction.TransactionException;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.exc.InvalidNullException;
import tools.jackson.databind.exc.InvalidTypeIdException;

/** Turns failures into problems, once, at the edge. */
@RestControllerAdvice
class ProblemAdvice {

    /** As H2 names a column whose value is too long, such as {@code "NAME CHARACTER VARYING(80)"}. */
    private static final Pattern COLUMN = Pattern.compile("olumn \"?(?:\\w+\\.)*(\\w+)");

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

    /** No room on the disk, or no way to it: nothing was saved. */
    @ExceptionHandler
    ResponseEntity<Problem> unwritable(TransactionException e) {
        LOG.error("cannot write: {}", e.getMessage());
        return answer(Problem.of("no-room", "Nothing can be saved now", 507, String.valueOf(e.getMessage())));
    }

    @ExceptionHandler
    ResponseEntity<Problem> tooMany(TooMany e) {
        return ResponseEntity.status(HttpStatus.TOO_MANY_REQUESTS)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .header(HttpHeaders.RETRY_AFTER, Long.toString(e.seconds()))
                .body(Problem.of("too-many", "Too many tries", 429, String.valueOf(e.getMessage())));
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
        if (!(e.getCause() instanceof JacksonException jackson)) {
            return answer(
                    Problem.of("unreadable", "Unreadable request", 400, "The request's body is not readable JSON."));
        }
        boolean unknownKind = jackson instanceof InvalidTypeIdException;
        if (jackson.getPath().isEmpty() && !unknownKind) {
            return answer(
                    Problem.of("unreadable", "Unreadable request", 400, "The request's body is not readable JSON."));
        }
        String pointer = jackson.getPath().stream()
                        .map(r -> "/" + (r.getPropertyName() == null ? r.getIndex() : r.getPropertyName()))
                        .collect(Collectors.joining())
                + (unknownKind ? "/type" : "");
        // a value that is null, or a field that is not there
        boolean missing = jackson instanceof InvalidNullException
                || jackson.getOriginalMessage().startsWith("Missing required creator property");
        String words = missing
                ? "This is missing."
                : jackson instanceof BadValue ? jackson.getOriginalMessage() : "This value cannot be read.";
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                missing || jackson instanceof BadValue ? 422 : 400,
                missing ? "%s is missing.".formatted(pointer) : "The value at %s cannot be read.".formatted(pointer),
                List.of(new FieldProblem(pointer, words)),
                null));
    }

    /** The database keeps less than what was sent: too long, too large, or standing for nothing on file. */
    @ExceptionHandler
    ResponseEntity<Problem> unkept(DataIntegrityViolationException e) {
        LOG.debug("not kept", e);
        Matcher column = COLUMN.matcher(String.valueOf(e.getMostSpecificCause().getMessage()));
        String pointer = column.find() ? "/" + camel(column.group(1)) : "";
        return answer(new Problem(
                "/problems/invalid-input",
                "Invalid input",
                422,
                "Something here is longer or larger than is kept, or is no longer on file. Nothing was saved.",
                List.of(new FieldProblem(pointer, "This is longer or larger than is kept.")),
                null));
    }

    private static String camel(String column) {
        Matcher words = Pattern.compile("_([a-z])").matcher(column.toLowerCase(Locale.ROOT));
        return words.replaceAll(m -> m.group(1).toUpperCase(Locale.ROOT));
    }

    /** Two changed the same rows at once, and this one gave way. */
    @ExceptionHandler
    ResponseEntity<Problem> busy(ConcurrencyFailureException e) {
        LOG.debug("gave way", e);
        return answer(Problem.of(
                "conflict",
                "Changed by somebody else",
                409,
                "Somebody else was changing the same at this moment; nothing was saved. Try again."));
    }

    /** An address whose characters cannot be read. */
    @ExceptionHandler
    ResponseEntity<Problem> garbled(InvalidParameterException e) {
        return answer(
                Problem.of("unreadable", "Unreadable request", 400, "A value in this address is not readable text."));
    }

    @ExceptionHandler
    ResponseEntity<Problem> noForm(MultipartException e) {
        return answer(Problem.of("unreadable", "Unreadable request", 400, "The form that was sent is not readable."));
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
