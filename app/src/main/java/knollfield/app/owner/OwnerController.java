package knollfield.app.owner;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.Checks;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.OwnerChange;
import knollfield.app.vehicle.Owners;
import knollfield.core.due.Status;
import knollfield.core.risk.DeskOrder;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Owners and their vehicles. */
@RestController
@RequestMapping("/api/owners")
class OwnerController {

    private static final int MAX_PAGE = 200;

    private final Owners owners;
    private final Forecasts forecasts;

    OwnerController(Owners owners, Forecasts forecasts) {
        this.owners = owners;
        this.forecasts = forecasts;
    }

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
            int version) {}

    record PhoneIn(@Nullable String number, @Nullable String label) {}

    /** @param into the owner who stays, as read with {@code intoVersion} */
    record MergeIn(int version, long into, int intoVersion) {}

    /** @param vehicles numbers of the vehicles that are another's */
    record SplitIn(
            int version,
            @Nullable String name,
            @Nullable String phone,
            @Nullable List<Long> vehicles) {}

    /** Owners by name, or those {@code q} finds: by name, telephone in any spelling, e-mail or address. */
    @GetMapping
    OwnerList list(
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "50") int limit) {
        List<Long> all = owners.matching(q);
        Map<Long, List<VehicleState>> by = byOwner(forecasts.all());
        return new OwnerList(
                all.size(),
                Math.max(0, offset),
                owners
                        .of(all.stream()
                                .skip(Math.max(0, offset))
                                .limit(Math.max(1, Math.min(limit, MAX_PAGE)))
                                .toList())
                        .stream()
                        .map(o -> row(o, by.getOrDefault(o.id(), List.of()).size()))
                        .toList());
    }

    @GetMapping("/{id}")
    OwnerPage page(@PathVariable long id) {
        Owner owner = owners.get(id);
        Map<Long, List<VehicleState>> by = byOwner(forecasts.all());
        List<OwnerRow> alike = owners.of(owners.alike(owner.id())).stream()
                .map(o -> row(o, by.getOrDefault(o.id(), List.of()).size()))
                .toList();
        return new OwnerPage(
                owner,
                by.getOrDefault(owner.id(), List.of()).stream()
                        .sorted(planned().thenComparing(DeskOrder.byExposure()))
                        .map(OwnerController::vehicle)
                        .toList(),
                alike,
                owners.changes(owner.id()).stream()
                        .map(c -> new OwnerChangeView(
                                c.id(),
                                c.at(),
                                c.by(),
                                c.what(),
                                c.fromName(),
                                c.toName(),
                                c.vehicles().size()))
                        .toList(),
                Arrays.stream(Owner.Kind.values())
                        .map(k -> new OwnerChoice(k.name(), k.words()))
                        .toList(),
                Arrays.stream(Owner.Prefers.values())
                        .map(p -> new OwnerChoice(p.name(), p.words()))
                        .toList());
    }

    @PutMapping("/{id}")
    OwnerPage change(@PathVariable long id, @RequestBody OwnerIn o) {
        new Checks()
                .that(o.kind() != null, "/kind", "A person or a firm?")
                .that(o.prefers() != null, "/prefers", "How the owner likes to hear is missing.")
                .orThrow();
        owners.change(new Owner(
                id,
                text(o.name()),
                Objects.requireNonNull(o.kind()),
                text(o.address()),
                text(o.email()),
                Objects.requireNonNull(o.prefers()),
                text(o.language()),
                o.mayWrite(),
                Objects.requireNonNullElse(o.phones(), List.<PhoneIn>of()).stream()
                        .filter(Objects::nonNull)
                        .map(p -> new Owner.Phone(text(p.number()), text(p.label())))
                        .toList(),
                Objects.requireNonNullElse(o.speakers(), List.<String>of()).stream()
                        .filter(Objects::nonNull)
                        .toList(),
                o.version()));
        return page(id);
    }

    /** Makes this owner one with another, whose page it then is. */
    @PostMapping("/{id}/merge")
    OwnerPage merge(@PathVariable long id, @RequestBody MergeIn m) {
        owners.merge(id, m.version(), m.into(), m.intoVersion());
        return page(m.into());
    }

    /** Gives some vehicles to a new owner; the page of the one who had them. */
    @PostMapping("/{id}/split")
    OwnerPage split(@PathVariable long id, @RequestBody SplitIn s) {
        owners.split(
                id,
                s.version(),
                text(s.name()),
                text(s.phone()),
                Objects.requireNonNullElse(s.vehicles(), List.<Long>of()).stream()
                        .filter(Objects::nonNull)
                        .toList());
        return page(id);
    }

    @PostMapping("/{id}/changes/{change}/undo")
    OwnerPage undo(@PathVariable long id, @PathVariable long change) {
        owners.undo(id, change);
        return page(id);
    }

    private static String text(@Nullable String given) {
        return Objects.requireNonNullElse(given, "");
    }

    private static Map<Long, List<VehicleState>> byOwner(Collection<VehicleState> all) {
        return all.stream()
                .filter(s -> s.vehicle().ownerId().isPresent())
                .collect(Collectors.groupingBy(s -> s.vehicle().ownerId().orElseThrow()));
    }

    /** Sold and scrapped ones last. */
    private static Comparator<VehicleState> planned() {
        return Comparator.comparing(s -> !s.vehicle().state().planned());
    }

    private static OwnerRow row(Owner o, int vehicles) {
        return new OwnerRow(
                o.id(),
                o.name(),
                o.kind().words(),
                o.phones().stream().map(Owner.Phone::number).findFirst().orElse(null),
                vehicles);
    }

    private static OwnedVehicle vehicle(VehicleState s) {
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
