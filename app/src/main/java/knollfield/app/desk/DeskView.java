package knollfield.app.desk;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import knollfield.core.due.Status;
import knollfield.core.due.Urgency;
import org.jspecify.annotations.Nullable;

/**
 * The Desk: what needs a decision.
 *
 * @param toDecide vehicles that the filter lets through and that call for a decision today
 * @param whileHere vehicles that are not due but worth doing on a visit for other work
 * @param total vehicles of the whole list, of which {@code rows} is a page from {@code offset} on
 * @param nextActBy the next act-by date of vehicles that need nothing yet
 * @param unjudged vehicles that cannot be judged as they are
 * @param figuresOf since when the figures stand, where computing them anew has failed
 */
record DeskView(
        LocalDate today,
        int vehicles,
        int toDecide,
        int total,
        int offset,
        int aside,
        int callBacks,
        int rechecks,
        int whileHere,
        List<Group> groups,
        List<Section> sections,
        List<DeskRow> rows,
        @Nullable LocalDate nextActBy,
        int nextActByVehicles,
        @Nullable MovedView moved,
        List<UnjudgedRow> unjudged,
        @Nullable Instant figuresOf) {

    /**
     * @param count vehicles of this status that the filter lets through
     */
    record Group(Status status, String words, int count) {}

    /**
     * What stands together in the list; rows stand in the order of the sections.
     *
     * @param status where all of it is of one
     * @param listed how many rows
     */
    record Section(String words, @Nullable Status status, int listed) {}

    /**
     * Vehicles that the last turn of the day, or a changed assumption, moved.
     *
     * @param why what moved them, in words
     */
    record MovedView(Instant at, String why, int count) {}

    /**
     * A vehicle that is judged without a part of what is on file of it.
     *
     * @param why a clause
     */
    record UnjudgedRow(long vehicleId, String registration, String why) {}

    /** What stands together in the list: by status, or by how urgent it is. */
    static List<Section> sections(DeskList.Chosen chosen) {
        Map<Status, Integer> listed = chosen.listedCounts();
        if (chosen.order() == DeskList.Order.STATUS) {
            return Arrays.stream(Status.values())
                    .filter(listed::containsKey)
                    .map(s -> new Section(s.words(), s, listed.getOrDefault(s, 0)))
                    .toList();
        }
        return Arrays.stream(Urgency.values())
                .map(u -> {
                    List<Status> of = Arrays.stream(Status.values())
                            .filter(s -> Urgency.of(s) == u)
                            .toList();
                    int rows =
                            of.stream().mapToInt(s -> listed.getOrDefault(s, 0)).sum();
                    return new Section(u.words(), of.size() == 1 ? of.get(0) : null, rows);
                })
                .filter(s -> s.listed() > 0)
                .toList();
    }
}
