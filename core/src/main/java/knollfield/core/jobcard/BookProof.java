package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.grow.GrownBuild;
import knollfield.core.engine.work.Breach;

/** Every purpose a book is used for, its card, and whether that card is proven; for the pages that show a book. */
public final class BookProof {

    /**
     * One purpose.
     *
     * @param name what is renewed, in words
     * @param items codes of the items
     * @param card the proven card; empty where there is none
     * @param breaches what breaks, each with its law and its thing of the book; empty where the card is proven
     */
    public record Purpose(String name, Set<String> items, Optional<CardPlan> card, List<Breach> breaches) {
        public boolean proven() {
            return card.isPresent();
        }
    }

    private BookProof() {}

    /** Each item by itself and all of them together. */
    public static List<Purpose> of(EngineFamily book) {
        EngineFamily family = GrownBuild.grown(book);
        List<Purpose> purposes = new ArrayList<>();
        Set<String> all = new LinkedHashSet<>();
        for (Item item : family.items()) {
            purposes.add(purpose(family, item.name(), Set.of(item.code())));
            boolean told =
                    family.build().map(b -> !b.things(item.code()).isEmpty()).orElse(true);
            if (told) {
                all.add(item.code());
            }
        }
        if (all.size() > 1) {
            purposes.add(0, purpose(family, "Everything", all));
        }
        return purposes;
    }

    private static Purpose purpose(EngineFamily family, String name, Set<String> items) {
        Set<String> variants = family.variants().stream().map(v -> v.code()).collect(Collectors.toSet());
        try {
            CardPlan plan =
                    CardGenerator.generate(new CardBasis(family, equipment(family), variants, CardScope.of(items)));
            return new Purpose(name, items, Optional.of(plan), List.of());
        } catch (CardNotProven e) {
            return new Purpose(name, items, Optional.empty(), e.breaches());
        }
    }

    /** A vehicle with everything the book knows of, so that nothing is left out of the proof. */
    private static Set<String> equipment(EngineFamily family) {
        return family.build().stream()
                .flatMap(b -> b.assemblies().stream())
                .flatMap(a -> a.equipment().stream())
                .collect(Collectors.toSet());
    }

    /**
     * Where a thing stands in a book, as a pointer from the family on and in words.
     *
     * @return empty for what is no thing of the build, such as the vehicle
     */
    public static Optional<Place> place(Build build, String thing) {
        Map<String, List<String>> lists = new java.util.LinkedHashMap<>();
        lists.put("assemblies", build.assemblies().stream().map(a -> a.code()).toList());
        lists.put("loops", build.loops().stream().map(l -> l.code()).toList());
        lists.put("joints", build.joints().stream().map(j -> j.code()).toList());
        lists.put("hardware", build.hardware().stream().map(h -> h.code()).toList());
        lists.put("references", build.references().stream().map(r -> r.code()).toList());
        lists.put("looks", build.looks().stream().map(l -> l.code()).toList());
        lists.put("fluids", build.fluids().stream().map(f -> f.code()).toList());
        lists.put("openings", build.openings().stream().map(o -> o.code()).toList());
        lists.put("wheels", build.wheels().stream().map(w -> w.code()).toList());
        lists.put("shafts", build.shafts().stream().map(s -> s.code()).toList());
        lists.put("positions", build.positions().stream().map(p -> p.code()).toList());
        lists.put("renews", build.renews().stream().map(r -> r.item()).toList());
        lists.put("orders", build.orders().stream().map(o -> o.first()).toList());
        for (Map.Entry<String, List<String>> list : lists.entrySet()) {
            int at = list.getValue().indexOf(thing);
            if (at >= 0) {
                return Optional.of(new Place("/build/%s/%d".formatted(list.getKey(), at), list.getKey()));
            }
        }
        return Optional.empty();
    }

    /**
     * @param pointer JSON pointer from the family on
     * @param list name of the list it stands in
     */
    public record Place(String pointer, String list) {}
}
