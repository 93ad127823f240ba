package knollfield.core.jobcard;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import knollfield.core.engine.TorqueSpec;

/**
 * What a card is made for. It changes while the card is worked: points are settled, items are added, the engine is found
 * out of time; the card then is generated anew and keeps its answers.
 *
 * @param items codes of what is renewed; none once the old parts of all of them go back
 * @param awaiting those of them the owner has not agreed to yet
 * @param variants settled points, choice by variant code
 * @param filed torques the book did not have, by joint code, as entered at the bench with their origin
 * @param paint timed by own paint marks, though the family has locking tools
 * @param outOfTime found out of time: the timing is set from scratch
 * @param attempt 1 for the first time the timing is set
 * @param rework done again after a signature; the same parts may go back
 * @param refitted the same parts went back
 * @param mishaps how often something broke off, went missing or proved whole after all
 */
public record CardScope(
        Set<String> items,
        Set<String> awaiting,
        Map<String, String> variants,
        Map<String, TorqueSpec> filed,
        boolean paint,
        boolean outOfTime,
        int attempt,
        boolean rework,
        boolean refitted,
        int mishaps) {

    public CardScope {
        items = Set.copyOf(items);
        awaiting = Set.copyOf(awaiting);
        variants = Map.copyOf(variants);
        filed = Map.copyOf(filed);
    }

    /** A first job on {@code items}, nothing settled. */
    public static CardScope of(Set<String> items) {
        if (items.isEmpty()) {
            throw new IllegalArgumentException("a card needs at least one item to renew");
        }
        return new CardScope(items, Set.of(), Map.of(), Map.of(), false, false, 1, false, false, 0);
    }

    /** Nothing is renewed: an inspection. */
    public static CardScope ofInspection() {
        return new CardScope(Set.of(), Set.of(), Map.of(), Map.of(), false, false, 1, false, false, 0);
    }

    public CardScope settled(Map<String, String> choices) {
        Map<String, String> all = new HashMap<>(variants);
        all.putAll(choices);
        return new CardScope(items, awaiting, all, filed, paint, outOfTime, attempt, rework, refitted, mishaps);
    }

    CardScope unsettled(String variant) {
        Map<String, String> all = new HashMap<>(variants);
        all.remove(variant);
        return new CardScope(items, awaiting, all, filed, paint, outOfTime, attempt, rework, refitted, mishaps);
    }

    CardScope filed(String joint, TorqueSpec spec) {
        Map<String, TorqueSpec> all = new HashMap<>(filed);
        all.put(joint, spec);
        return new CardScope(items, awaiting, variants, all, paint, outOfTime, attempt, rework, refitted, mishaps);
    }

    public CardScope paint(boolean value) {
        return new CardScope(items, awaiting, variants, filed, value, outOfTime, attempt, rework, refitted, mishaps);
    }

    CardScope outOfTime(boolean value) {
        return new CardScope(items, awaiting, variants, filed, paint, value, attempt, rework, refitted, mishaps);
    }

    CardScope attempt(int value) {
        return new CardScope(items, awaiting, variants, filed, paint, outOfTime, value, rework, refitted, mishaps);
    }

    CardScope refitted(boolean value) {
        return new CardScope(items, awaiting, variants, filed, paint, outOfTime, attempt, rework, value, mishaps);
    }

    public CardScope asRework() {
        return new CardScope(items, awaiting, variants, filed, paint, outOfTime, attempt, true, refitted, mishaps);
    }

    CardScope on(Set<String> other) {
        return new CardScope(other, awaiting, variants, filed, paint, outOfTime, attempt, rework, refitted, mishaps);
    }

    /** Something broke off, is missing, or was not after all: the card is laid anew. */
    CardScope mishap() {
        return new CardScope(
                items, awaiting, variants, filed, paint, outOfTime, attempt, rework, refitted, mishaps + 1);
    }

    /** Without {@code item}, the old part of which goes back. */
    CardScope without(String item) {
        Set<String> left = new HashSet<>(items);
        left.remove(item);
        return on(left);
    }

    /** With {@code added}, which wait for the owner. */
    CardScope widened(Set<String> added) {
        Set<String> all = new HashSet<>(items);
        all.addAll(added);
        Set<String> waiting = new HashSet<>(awaiting);
        added.stream().filter(i -> !items.contains(i)).forEach(waiting::add);
        return new CardScope(all, waiting, variants, filed, paint, outOfTime, attempt, rework, refitted, mishaps);
    }

    /** Once the owner has spoken: {@code left} goes off the card again. */
    CardScope answered(Set<String> agreed, Set<String> left) {
        Set<String> all = new HashSet<>(items);
        Set<String> waiting = new HashSet<>(awaiting);
        waiting.removeAll(agreed);
        left.stream().filter(waiting::remove).forEach(all::remove);
        return new CardScope(all, waiting, variants, filed, paint, outOfTime, attempt, rework, refitted, mishaps);
    }
}
