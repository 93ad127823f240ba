package knollfield.app.estimate;

import java.util.List;
import java.util.Optional;
import knollfield.app.documents.DeclinePrinter;
import knollfield.app.documents.EstimatePrinter;
import knollfield.app.estimate.EstimateViews.EstimatesView;
import knollfield.app.estimate.EstimateViews.SaidIn;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A job's estimates, what was said to them, and what the job cost. */
@RestController
@RequestMapping("/api/jobs/{id}/estimates")
class EstimateController {

    private final EstimatePage page;
    private final Estimates estimates;
    private final Jobs jobs;
    private final EstimatePrinter printer;
    private final Declines declines;
    private final DeclinePrinter declinePrinter;

    EstimateController(
            EstimatePage page,
            Estimates estimates,
            Jobs jobs,
            EstimatePrinter printer,
            Declines declines,
            DeclinePrinter declinePrinter) {
        this.page = page;
        this.estimates = estimates;
        this.jobs = jobs;
        this.printer = printer;
        this.declines = declines;
        this.declinePrinter = declinePrinter;
    }

    @GetMapping
    EstimatesView list(@PathVariable long id) {
        return page.list(id);
    }

    @PostMapping
    EstimatesView make(@PathVariable long id) {
        estimates.make(id);
        return list(id);
    }

    /** Notes what was said to lines of an estimate. */
    @PostMapping("/{number}/consents")
    EstimatesView note(@PathVariable long id, @PathVariable int number, @RequestBody SaidIn said) {
        estimates.note(
                id,
                number,
                new Estimates.Said(
                        said.lines(),
                        said.answer(),
                        said.saidBy().strip(),
                        said.on(),
                        said.how(),
                        Optional.ofNullable(said.warning()).orElse("").strip(),
                        said.signed(),
                        Boolean.TRUE.equals(said.refused()),
                        Boolean.TRUE.equals(said.insist())));
        return list(id);
    }

    /** The estimate on paper. */
    @GetMapping(path = "/{number}/estimate.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(@PathVariable long id, @PathVariable int number) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"estimate-%d-%d.pdf\"".formatted(id, number))
                .body(printer.print(page.sheet(id, number)));
    }

    /**
     * What the owner signs who leaves lines.
     *
     * @param lines codes of lines that are to be left; none: those that were left
     * @param told of the risk; none: the words that were noted, or the usual ones
     */
    @GetMapping(path = "/{number}/decline.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> decline(
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(defaultValue = "") List<String> lines,
            @RequestParam(defaultValue = "") String told) {
        Job job = jobs.get(id);
        StoredEstimate stored = estimates.get(id, number);
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"left-%d-%d.pdf\"".formatted(id, number))
                .body(declinePrinter.print(declines.sheet(job, stored, lines, told)));
    }
}
