package knollfield.app.importing;

import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Lists as CSV: looked at first, then taken whole. */
@RestController
@RequestMapping("/api/imports")
class ImportController {

    private final CsvImport imports;

    ImportController(CsvImport imports) {
        this.imports = imports;
    }

    @PostMapping(path = "/preview", consumes = "text/csv")
    CsvImport.Preview preview(@RequestBody(required = false) byte @org.jspecify.annotations.Nullable [] body) {
        return imports.preview(body == null ? new byte[0] : body);
    }

    @PostMapping(consumes = "text/csv")
    CsvImport.Imported take(@RequestBody(required = false) byte @org.jspecify.annotations.Nullable [] body) {
        return imports.take(body == null ? new byte[0] : body);
    }
}
