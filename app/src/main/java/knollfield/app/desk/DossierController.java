package knollfield.app.desk;

import knollfield.app.desk.DossierViews.DossierView;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** One vehicle: how it stands, why, and what has happened to it. */
@RestController
@RequestMapping("/api/vehicles/{id}")
class DossierController {

    private final DossierPage page;

    DossierController(DossierPage page) {
        this.page = page;
    }

    @GetMapping
    DossierView get(@PathVariable long id) {
        return page.of(id);
    }
}
