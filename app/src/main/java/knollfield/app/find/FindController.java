package knollfield.app.find;

import knollfield.app.find.FindViews.Found;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Everything that a few letters can mean: vehicles, their owners, engine families and jobs. */
@RestController
@RequestMapping("/api/find")
class FindController {

    private final Finder finder;

    FindController(Finder finder) {
        this.finder = finder;
    }

    /**
     * Vehicles by registration, owner, part of a VIN, a telephone number in any spelling, make, engine or its family, sold and
     * scrapped ones too; worst first, those whose registration begins so before all. Beside them owners, families and the job
     * of that number.
     *
     * @param limit vehicles at most, 1 to 200
     */
    @GetMapping
    Found find(
            @RequestParam String q,
            @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "8") int limit) {
        return finder.find(q, offset, limit);
    }
}
