package knollfield.app.owner;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.owner.OwnerViews.OwnerChangeView;
import knollfield.app.owner.OwnerViews.OwnerChoice;
import knollfield.app.owner.OwnerViews.OwnerRow;
import knollfield.app.owner.OwnerViews.PhoneIn;
import knollfield.app.problem.Checks;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.OwnerChange;
import knollfield.core.due.Status;
import org.jspecify.annotations.Nullable;

/** An owner, as it is shown and asked for. */
final class OwnerViews {

    private OwnerViews() {}

    record OwnerRow(
            long id, String name, String kind, @Nullable String phone, int vehicles) {}

    record OwnerList(int total, int offset, List<OwnerRow> rows) {}

    record OwnedVehicle(
            long vehicleId,
            String registration,
            String makeModel,
            Status status,
            String statusWords,
            @Nullable LocalDate actBy) {}

    record OwnerChoice(String code, String words) {}

    record OwnerChangeView(
            long id, Instant at, String by, OwnerChange.What what, String fromName, String toName, int vehicles) {}

    /**
     * @param alike others who may be the same: of the same name, or with one of the numbers
     * @param changes merges and splits that can be undone, newest first
     */
    record OwnerPage(
            Owner owner,
            List<OwnedVehicle> vehicles,
            List<OwnerRow> alike,
            List<OwnerChangeView> changes,
            List<OwnerChoice> kinds,
            List<OwnerChoice> prefers) {}

    record OwnerIn(
            @Nullable String name,
            Owner.@Nullable Kind kind,
            @Nullable String address,
            @Nullable String email,
            Owner.@Nullable Prefers prefers,
            @Nullable String language,
            boolean mayWrite,
            @Nullable List<PhoneIn> phones,
            @Nullable List<String> speakers,
            int version) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        Owner toOwner(long id) {
            new Checks()
                    .that(kind() != null, "/kind", "A person or a firm?")
                    .that(prefers() != null, "/prefers", "How the owner likes to hear is missing.")
                    .orThrow();
            return new Owner(
                    id,
                    OwnerViews.text(name()),
                    Objects.requireNonNull(kind()),
                    OwnerViews.text(address()),
                    OwnerViews.text(email()),
                    Objects.requireNonNull(prefers()),
                    OwnerViews.text(language()),
                    mayWrite(),
                    Objects.requireNonNullElse(phones(), List.<PhoneIn>of()).stream()
                            .filter(Objects::nonNull)
                            .map(p -> new Owner.Phone(OwnerViews.text(p.number()), OwnerViews.text(p.label())))
                            .toList(),
                    Objects.requireNonNullElse(speakers(), List.<String>of()).stream()
                            .filter(Objects::nonNull)
                            .toList(),
                    version());
        }
    }

    record PhoneIn(@Nullable String number, @Nullable String label) {}

    /** @param into the owner who stays, as read with {@code intoVersion} */
    record MergeIn(int version, long into, int intoVersion) {}

    /** @param vehicles numbers of the vehicles that are another's */
    record SplitIn(
            int version,
            @Nullable String name,
            @Nullable String phone,
            @Nullable List<Long> vehicles) {}

    static String text(@Nullable String given) {
        return Objects.requireNonNullElse(given, "");
    }

    static Map<Long, List<VehicleState>> byOwner(Collection<VehicleState> all) {
        return all.stream()
                .filter(s -> s.vehicle().ownerId().isPresent())
                .collect(Collectors.groupingBy(s -> s.vehicle().ownerId().orElseThrow()));
    }

    /** Sold and scrapped ones last. */
    static Comparator<VehicleState> planned() {
        return Comparator.comparing(s -> !s.vehicle().state().planned());
    }

    static OwnerRow row(Owner o, int vehicles) {
        return new OwnerRow(
                o.id(),
                o.name(),
                o.kind().words(),
                o.phones().stream().map(Owner.Phone::number).findFirst().orElse(null),
                vehicles);
    }

    static OwnedVehicle vehicle(VehicleState s) {
        boolean planned = s.vehicle().state().planned();
        return new OwnedVehicle(
                s.vehicle().id(),
                s.vehicle().registration(),
                s.vehicle().makeModel(),
                s.forecast().status(),
                planned
                        ? s.forecast().statusWords()
                        : s.vehicle().state().kind().words(),
                planned ? s.forecast().actBy().orElse(null) : null);
    }
}
