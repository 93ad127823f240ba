package knollfield.app.owner;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.owner.OwnerViews.MergeIn;
import knollfield.app.owner.OwnerViews.OwnerChangeView;
import knollfield.app.owner.OwnerViews.OwnerChoice;
import knollfield.app.owner.OwnerViews.OwnerIn;
import knollfield.app.owner.OwnerViews.OwnerList;
import knollfield.app.owner.OwnerViews.OwnerPage;
import knollfield.app.owner.OwnerViews.OwnerRow;
import knollfield.app.owner.OwnerViews.SplitIn;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.core.risk.DeskOrder;
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

    /** Owners by name, or those {@code q} finds: by name, telephone in any spelling, e-mail or address. */
    @GetMapping
    OwnerList list(
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "50") int limit) {
        List<Long> all = owners.matching(q);
        Map<Long, List<VehicleState>> by = OwnerViews.byOwner(forecasts.all());
        return new OwnerList(
                all.size(),
                Math.max(0, offset),
                owners
                        .of(all.stream()
                                .skip(Math.max(0, offset))
                                .limit(Math.max(1, Math.min(limit, MAX_PAGE)))
                                .toList())
                        .stream()
                        .map(o -> OwnerViews.row(
                                o, by.getOrDefault(o.id(), List.of()).size()))
                        .toList());
    }

    @GetMapping("/{id}")
    OwnerPage page(@PathVariable long id) {
        Owner owner = owners.get(id);
        Map<Long, List<VehicleState>> by = OwnerViews.byOwner(forecasts.all());
        List<OwnerRow> alike = owners.of(owners.alike(owner.id())).stream()
                .map(o -> OwnerViews.row(o, by.getOrDefault(o.id(), List.of()).size()))
                .toList();
        return new OwnerPage(
                owner,
                by.getOrDefault(owner.id(), List.of()).stream()
                        .sorted(OwnerViews.planned().thenComparing(DeskOrder.byExposure()))
                        .map(OwnerViews::vehicle)
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
        owners.change(o.toOwner(id));
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
                OwnerViews.text(s.name()),
                OwnerViews.text(s.phone()),
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
}
