package knollfield.app.job.card;

import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** The belt-frequency meter at the bench. */
@RestController
class MeterController {

    private final BenchMeter meter;

    MeterController(BenchMeter meter) {
        this.meter = meter;
    }

    /** One reading; it is shown, and entered only when somebody enters it. */
    @PostMapping("/api/jobs/{id}/card/frequency")
    BenchMeter.MeterReading read(@PathVariable long id) {
        return meter.read(id);
    }
}
