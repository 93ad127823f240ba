package knollfield.app.stores;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import knollfield.app.shared.Cells;
import knollfield.app.stores.StoresViews.CopyIn;
import knollfield.app.stores.StoresViews.CountIn;
import knollfield.app.stores.StoresViews.ForJob;
import knollfield.app.stores.StoresViews.NewCopy;
import knollfield.app.stores.StoresViews.OrderIn;
import knollfield.app.stores.StoresViews.ShelfView;
import knollfield.app.stores.StoresViews.ShortPart;
import knollfield.app.stores.StoresViews.StoresView;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What coming jobs need of the stores, what is short, orders, tool sets. */
@RestController
@RequestMapping("/api/stores")
class StoresController {

    private final Stores stores;
    private final StoresPage page;

    StoresController(Stores stores, StoresPage page) {
        this.stores = stores;
        this.page = page;
    }

    @GetMapping
    StoresView view() {
        return page.view();
    }

    /** What is short, as CSV. */
    @GetMapping(value = "/short.csv", produces = "text/csv")
    String shortCsv() {
        return Cells.list(csv -> {
            Cells.print(csv, "part", "name", "pieces", "order_by", "here_if_ordered_today", "for");
            for (ShortPart s : view().shorts()) {
                Cells.print(
                        csv,
                        s.part(),
                        s.name(),
                        s.pieces(),
                        s.orderBy(),
                        s.here(),
                        s.jobs().stream().map(ForJob::registration).collect(Collectors.joining(" ")));
            }
        });
    }

    @PostMapping("/orders")
    StoresView order(@RequestBody OrderIn in) {
        stores.order(in.lines());
        return view();
    }

    @PostMapping("/orders/{id}/arrived")
    StoresView arrived(@PathVariable long id, @RequestParam int version) {
        stores.arrived(id, version);
        return view();
    }

    @PostMapping("/orders/{id}/cancelled")
    StoresView cancelled(@PathVariable long id, @RequestParam int version) {
        stores.cancel(id, version);
        return view();
    }

    /** Pieces in the house, for parts that have any on file. */
    @GetMapping("/stock")
    List<ShelfView> stock() {
        return stores.stock().entrySet().stream()
                .map(e -> new ShelfView(
                        e.getKey(), e.getValue().pieces(), e.getValue().version()))
                .sorted(Comparator.comparing(ShelfView::part))
                .toList();
    }

    @PutMapping("/stock/{part}")
    List<ShelfView> count(@PathVariable String part, @RequestBody CountIn in) {
        stores.count(part, in.pieces(), in.version());
        return stock();
    }

    @PutMapping("/tool-sets/{id}")
    StoresView note(@PathVariable long id, @RequestBody CopyIn in) {
        stores.note(id, in.state(), in.keptAt(), in.note(), in.version());
        return view();
    }

    @PostMapping("/tool-sets")
    StoresView addCopy(@RequestBody NewCopy in) {
        stores.addCopy(in.familyCode());
        return view();
    }
}
