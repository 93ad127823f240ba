package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.IntStream;
import knollfield.core.engine.EngineFamily;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;

class WhatNextTest {

    @Test
    void onEveryKindTheCardsOwnNextIsRightAndWhatBreaksALawSaysWhich() {
        int wrong = 0;
        for (Kind kind : Kinds.all()) {
            EngineFamily family = RoutedCardTest.family(kind.code());
            for (int seed : IntStream.range(0, 12).toArray()) {
                WhatNext question = WhatNext.of(family, seed).orElseThrow();
                assertThat(question.choices()).hasSize(4).doesNotHaveDuplicates();
                assertThat(question.choices()).noneMatch(question.done()::contains);
                for (Step choice : question.choices()) {
                    WhatNext.Verdict verdict = question.answer(choice.code()).orElseThrow();
                    assertThat(verdict.may()).as("%s %d", kind.code(), seed).isNotEmpty();
                    assertThat(verdict.right()).isEqualTo(verdict.may().contains(choice));
                    assertThat(verdict.breaches()).allSatisfy(b -> {
                        assertThat(b.laws()).isNotEmpty();
                        assertThat(b.words()).isNotBlank();
                    });
                    wrong += verdict.right() ? 0 : 1;
                }
            }
        }
        assertThat(wrong).isGreaterThan(200);
    }

    @Test
    void theSameSeedAsksTheSameAndAnotherOneSomethingElse() {
        EngineFamily family = RoutedCardTest.family("e01");
        WhatNext one = WhatNext.of(family, 5).orElseThrow();
        assertThat(WhatNext.of(family, 5).orElseThrow().choices()).isEqualTo(one.choices());
        assertThat(IntStream.range(6, 16).mapToObj(s -> WhatNext.of(family, s).orElseThrow()))
                .anyMatch(q -> q.done().size() != one.done().size());
        assertThat(one.answer("no-such-step")).isEmpty();
    }
}
