package knollfield.app.estimate;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.jspecify.annotations.Nullable;

/** Estimates and answers, as they are shown and asked for. */
final class EstimateViews {

    private EstimateViews() {}

    record ConsentView(
            Consent.Answer answer,
            String answerWords,
            String saidBy,
            LocalDate on,
            Consent.How how,
            String howWords,
            String warning,
            boolean signed,
            int estimateNumber,
            String enteredBy) {}

    /**
     * Money in minor units before tax.
     *
     * @param asked the line can be agreed to or left
     * @param purpose without it there is no job: a no to it refuses the job
     * @param said what was said to it, newest first
     */
    record EstimateLineView(
            String code,
            String name,
            Estimate.Kind kind,
            boolean required,
            boolean ownerSupplied,
            int minutes,
            long partsMinor,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            boolean asked,
            boolean purpose,
            Consent.State state,
            String stateWords,
            boolean open,
            List<ConsentView> said) {}

    record LeftLineView(String code, String name, ConsentView consent) {}

    /** @param partsMinor parts, consumables and hire */
    record SumsView(
            long labourMinor,
            long partsMinor,
            long netMinor,
            long taxMinor,
            double taxShare,
            long totalMinor,
            long lowMinor,
            long highMinor) {}

    record EstimateView(
            int number,
            LocalDate madeOn,
            LocalDate validUntil,
            String madeBy,
            boolean current,
            List<EstimateLineView> lines,
            SumsView sums,
            List<String> plain) {}

    /** What the job cost against the newest estimate; minor units before tax. */
    record OutcomeView(int minutes, int estimatedMinutes, long costMinor, long estimatedMinor, long differenceMinor) {}

    /**
     * @param draft sums as things stand now
     * @param newest null where none was made yet
     * @param left lines that were left, with the warning given
     * @param open lines of the newest estimate that the owner has still to be asked about
     * @param speakers who may answer: the owner, and those the owner has named
     * @param timeFactor this workshop's time against the book's
     */
    record EstimatesView(
            SumsView draft,
            double timeFactor,
            @Nullable EstimateView newest,
            List<Integer> numbers,
            List<LeftLineView> left,
            int open,
            List<String> speakers,
            @Nullable OutcomeView outcome) {}

    /**
     * @param refused the whole job is refused, and given up
     * @param insist noted although who said it is not named as one who may speak for the owner
     */
    record SaidIn(
            List<String> lines,
            Consent.Answer answer,
            String saidBy,
            LocalDate on,
            Consent.How how,
            @Nullable String warning,
            boolean signed,
            @Nullable Boolean refused,
            @Nullable Boolean insist) {}

    /** What was said to a line, newest first. */
    static List<ConsentView> said(List<EstimateRepository.Entered> oldestFirst, String code) {
        return oldestFirst.stream()
                .filter(c -> c.consent().lineCode().equals(code))
                .sorted(Comparator.comparing(EstimateRepository.Entered::id).reversed())
                .map(EstimateViews::view)
                .toList();
    }

    static Consent.State state(Map<String, Consent.OfLine> standing, Estimate.Line line) {
        return Optional.ofNullable(standing.get(line.code()))
                .map(Consent.OfLine::state)
                .orElse(Consent.State.NOT_ASKED);
    }

    static SumsView sums(Estimate e) {
        return new SumsView(
                e.labourMinor(),
                e.partsMinor(),
                e.netMinor(),
                e.taxMinor(),
                e.taxShare(),
                e.totalMinor(),
                e.lowTotalMinor(),
                e.highTotalMinor());
    }

    static ConsentView view(EstimateRepository.Entered c) {
        return new ConsentView(
                c.consent().answer(),
                c.consent().answer().words(),
                c.consent().saidBy(),
                c.consent().on(),
                c.consent().how(),
                c.consent().how().words(),
                c.consent().warning(),
                c.consent().signed(),
                c.estimateNumber(),
                c.enteredBy());
    }
}
