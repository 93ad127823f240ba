package knollfield.app.letters;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.outbox.Channel;
import org.jspecify.annotations.Nullable;

/** Letters, as they are shown before and after they go. */
final class LettersViews {

    private LettersViews() {}

    /** @param why in words: when it must be acted on, and which reminder it is */
    record ReminderLine(long vehicleId, String registration, String makeModel, LocalDate actBy, String why) {}

    record WayView(Channel channel, String words) {}

    /**
     * @param suggested by which way; null where the owner would rather be rung, or nothing is on file
     * @param ways those there are
     */
    record ReminderLetter(
            long ownerId,
            String ownerName,
            String prefersWords,
            @Nullable String phone,
            @Nullable Channel suggested,
            List<WayView> ways,
            List<ReminderLine> lines) {}

    record ReminderKept(long vehicleId, String registration, String ownerName, LocalDate actBy, String whyWords) {}

    /**
     * @param kept vehicles within the rule's time whose owners are not written to, and why
     * @param later how many have time yet
     */
    record RemindersView(
            int weeksBefore,
            int weeksBetween,
            int most,
            List<ReminderLetter> letters,
            List<ReminderKept> kept,
            int later) {}

    record LetterView(String subject, String body) {}

    record ChosenIn(
            long ownerId,
            @Nullable Channel channel,
            @Nullable List<Long> vehicles) {}

    record SendIn(@Nullable List<ChosenIn> letters) {}

    record SentView(int sent, RemindersView left) {}

    static boolean isWithin(LocalDate actBy, LocalDate today, int weeks) {
        return !actBy.isAfter(today.plusWeeks(weeks));
    }
}
