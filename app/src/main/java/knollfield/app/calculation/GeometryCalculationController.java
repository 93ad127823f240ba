package knollfield.app.calculation;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.ExampleObject;
import java.util.ArrayList;
import java.util.List;
import knollfield.app.calculation.BundleCalculationViews.GeometryIn;
import knollfield.app.calculation.BundleCalculationViews.GeometryOut;
import knollfield.app.calculation.BundleCalculationViews.SprocketIn;
import knollfield.app.calculation.BundleCalculationViews.SprocketOut;
import knollfield.core.engine.Ratio;
import knollfield.core.engine.TimingGeometry;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The teeth of a drive worked out by hand. */
@RestController
@RequestMapping("/api/calculations")
class GeometryCalculationController {

    @Operation(
            summary = "Degrees of a tooth, turns until paint marks are back, travel of the piston",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "290 turns", value = """
                                    {
                                      "teeth": 145, "crankTeeth": 24,
                                      "sprockets": [{"name": "cam", "teeth": 48, "marked": true}],
                                      "crankThrowMm": 43, "rodMm": 137, "degrees": 30
                                    }"""))))
    @PostMapping("/tooth-geometry")
    GeometryOut geometry(@RequestBody GeometryIn in) {
        in.check();
        List<Ratio> marks = new ArrayList<>();
        marks.add(new Ratio(in.crankTeeth(), in.teeth()));
        List<SprocketOut> sprockets = new ArrayList<>();
        for (SprocketIn s : in.sprockets()) {
            Ratio turns = s.ratio() == null
                    ? new Ratio(in.crankTeeth(), s.teeth())
                    : new Ratio(s.ratio().numerator(), s.ratio().denominator());
            if (s.marked()) {
                marks.add(turns);
            }
            sprockets.add(new SprocketOut(s.name(), TimingGeometry.toothDegrees(s.teeth()), turns.value()));
        }
        Double piston = in.crankThrowMm() == null || in.rodMm() == null || in.degrees() == null
                ? null
                : TimingGeometry.pistonTravel(in.crankThrowMm(), in.rodMm(), in.degrees());
        return new GeometryOut(
                TimingGeometry.toothDegrees(in.crankTeeth()), sprockets, TimingGeometry.markReturn(marks), piston);
    }
}
