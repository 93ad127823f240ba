package knollfield.app.erasure;

import java.util.List;
import java.util.Map;
import knollfield.app.shared.WorkshopClock;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is kept of an owner: a copy of it, and that it goes. */
@RestController
@RequestMapping("/api/owners/{id}")
class OwnerDataController {

    private final OwnerData data;
    private final WorkshopClock clock;

    OwnerDataController(OwnerData data, WorkshopClock clock) {
        this.data = data;
        this.clock = clock;
    }

    /** @param name as it stands on file */
    record Erasure(String name, int version) {}

    /** All of it as a document to hand over. */
    @GetMapping("/copy")
    ResponseEntity<Map<String, List<Map<String, Object>>>> copy(@PathVariable long id) {
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"owner-%d-%s.json\"".formatted(id, clock.today()))
                .body(data.copy(id));
    }

    /** Erases who the owner is; the vehicles' record stays. */
    @PostMapping("/erasure")
    void erase(@PathVariable long id, @RequestBody Erasure body) {
        data.erase(id, body.name(), body.version());
    }
}
