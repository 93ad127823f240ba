package knollfield.core.matching;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FamilyRuleTest {

    private static OptionalInt year(Integer year) {
        return year == null ? OptionalInt.empty() : OptionalInt.of(year);
    }

    @ParameterizedTest(name = "\"{0}\" {1} {2}-{3} on \"{4}\" {5} of {6}: {7}")
    @CsvSource(
            nullValues = "-",
            value = {
                "Corvane Drift, '', -, -, CORVANE  DRIFT 1.6, '', 2015, true",
                "Drift Corvane, '', -, -, Corvane Drift, '', 2015, true",
                "Corvane Drift, '', -, -, Corvane Drifter, '', 2015, false",
                "Corvane Drift, '', -, -, Corvane, '', 2015, false",
                "Élan, '', -, -, elan van, '', 2015, true",
                "'', 'AB 12, AB13', -, -, anything, ab12, 2015, true",
                "'', 'AB 12, AB13', -, -, anything, A-B 13, 2015, true",
                "'', AB1, -, -, anything, AB12, 2015, false",
                "'', AB12, -, -, anything, '', 2015, false",
                "Corvane, AB12, -, -, Corvane Drift, AB12, 2015, true",
                "Corvane, AB12, -, -, Tarn Drift, AB12, 2015, false",
                "Corvane, '', 2014, 2016, Corvane, '', 2014, true",
                "Corvane, '', 2014, 2016, Corvane, '', 2016, true",
                "Corvane, '', 2014, 2016, Corvane, '', 2013, false",
                "Corvane, '', 2014, -, Corvane, '', 2013, false",
                "Corvane, '', -, 2016, Corvane, '', 2017, false"
            })
    void aRuleAsksForAllItSays(
            String makeModel,
            String engine,
            Integer from,
            Integer to,
            String written,
            String letters,
            int first,
            boolean fits) {
        FamilyRule rule = new FamilyRule("COR-16", makeModel, engine, year(from), year(to));
        assertThat(rule.fits(new FamilyRule.Described(written, letters, first))).isEqualTo(fits);
    }

    @Test
    void severalFamiliesAreForSomebodyToChooseFrom() {
        List<FamilyRule> rules = List.of(
                new FamilyRule("B", "Corvane", "", year(null), year(null)),
                new FamilyRule("A", "Corvane Drift", "", year(null), year(null)),
                new FamilyRule("A", "", "AB12", year(null), year(null)));
        assertThat(FamilyRule.families(rules, new FamilyRule.Described("Corvane Drift", "AB12", 2015)))
                .containsExactly("A", "B");
        assertThat(FamilyRule.families(rules, new FamilyRule.Described("Corvane", "", 2015)))
                .containsExactly("B");
        assertThat(FamilyRule.families(rules, new FamilyRule.Described("Tarn", "", 2015)))
                .isEmpty();
    }

    @Test
    void aRuleThatAsksNothingOrBackwardsYearsIsNone() {
        assertThatThrownBy(() -> new FamilyRule("A", " - ", ",", year(2000), year(null)))
                .hasMessageContaining("make and model");
        assertThatThrownBy(() -> new FamilyRule("A", "Corvane", "", year(2010), year(2009)))
                .hasMessageContaining("backwards");
    }
}
