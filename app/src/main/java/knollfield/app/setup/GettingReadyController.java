package knollfield.app.setup;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is still missing before the first due list, estimate, promise and card; the manager's alone. */
@RestController
class GettingReadyController {

    private final GettingReady gettingReady;

    GettingReadyController(GettingReady gettingReady) {
        this.gettingReady = gettingReady;
    }

    @GetMapping("/api/setup/ready")
    GettingReady.Ready ready() {
        return gettingReady.ready();
    }
}
