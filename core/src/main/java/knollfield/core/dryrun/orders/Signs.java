package knollfield.core.dryrun.orders;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * The short signs of an order: {@code verb:thing+thing:number}, {@code BEGIN}, {@code END}, {@code open} and {@code shut}.
 */
final class Signs {

    private Signs() {}

    /**
     * The operations of several signs parted by commas.
     *
     * @throws IllegalArgumentException for a sign that is none
     */
    static List<Operation> operations(String signs) {
        List<Operation> all = new ArrayList<>();
        for (String sign : signs.split(",")) {
            if (!sign.isBlank()) {
                all.addAll(sign(sign.strip()));
            }
        }
        return all;
    }

    private static List<Operation> sign(String sign) {
        if (sign.equals("BEGIN")) {
            return List.of(Operation.of(Verb.SAFE, "battery"), Operation.of(Verb.RAISE, "car"));
        }
        if (sign.equals("END")) {
            return List.of(
                    Operation.of(Verb.CLOSE, "car"),
                    Operation.of(Verb.START, "engine"),
                    Operation.of(Verb.CHECK, "engine"),
                    Operation.of(Verb.LABEL, "car"));
        }
        String[] parts = sign.split(":");
        if (parts.length < 2 || parts.length > 4) {
            throw new IllegalArgumentException("\"%s\" is no operation: write verb:thing".formatted(sign));
        }
        List<String> things =
                Arrays.stream(parts[1].split("\\+")).map(String::strip).toList();
        String number = parts.length > 2 ? parts[2].strip() : "1";
        return switch (parts[0]) {
            case "open" -> both(things, round(number, sign), Verb.UNDO, Verb.TAKE_OFF);
            case "shut" -> shut(things, round(number, sign));
            case "tighten" -> tighten(things, number, parts.length > 3 ? round(parts[3], sign) : 1, sign);
            default -> {
                Verb verb = Verb.of(parts[0])
                        .orElseThrow(() -> new IllegalArgumentException("there is no verb \"%s\"".formatted(parts[0])));
                int round = round(number, sign);
                yield things.stream().map(t -> Operation.of(verb, t, round)).toList();
            }
        };
    }

    private static List<Operation> both(List<String> things, int round, Verb first, Verb second) {
        return things.stream()
                .flatMap(t -> Stream.of(Operation.of(first, t, round), Operation.of(second, t, round)))
                .toList();
    }

    private static List<Operation> shut(List<String> things, int round) {
        return things.stream()
                .flatMap(t -> Stream.of(Operation.of(Verb.FIT, t, round), new Operation(Verb.TIGHTEN, t, 1, round)))
                .toList();
    }

    private static List<Operation> tighten(List<String> things, String stages, int round, String sign) {
        String[] span = stages.split("-");
        int first = round(span[0], sign);
        int last = round(span[span.length - 1], sign);
        List<Operation> all = new ArrayList<>();
        for (int stage = first; stage <= last; stage++) {
            for (String thing : things) {
                all.add(new Operation(Verb.TIGHTEN, thing, stage, round));
            }
        }
        return all;
    }

    private static int round(String number, String sign) {
        try {
            return Integer.parseInt(number.strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("\"%s\": \"%s\" is no number".formatted(sign, number), e);
        }
    }
}
