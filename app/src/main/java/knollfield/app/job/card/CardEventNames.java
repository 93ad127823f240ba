package knollfield.app.job.card;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Arrays;
import java.util.Locale;
import knollfield.core.jobcard.CardEvent;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.jsontype.NamedType;
import tools.jackson.databind.node.ObjectNode;

/** The names under which events are stored; core knows nothing of JSON. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
interface CardEventNames {

    /** {@code json}, reading and writing each kind of event by its own name: {@code TorqueFiled} as "torque-filed". */
    static JsonMapper in(JsonMapper json) {
        NamedType[] kinds = Arrays.stream(CardEvent.class.getPermittedSubclasses())
                .map(kind -> new NamedType(
                        kind,
                        kind.getSimpleName().replaceAll("(?<=.)([A-Z])", "-$1").toLowerCase(Locale.ROOT)))
                .toArray(NamedType[]::new);
        return json.rebuild()
                .addMixIn(CardEvent.class, CardEventNames.class)
                .registerSubtypes(kinds)
                .build();
    }

    /**
     * An event as it was written; what older ones did not hold yet is filled in.
     *
     * @param json as {@link #in} gives it
     */
    static CardEvent read(JsonMapper json, JsonNode written) {
        ObjectNode node = (ObjectNode) written;
        String type = node.get("type").asString();
        if (type.equals("started") && !node.has("keys")) {
            node.put("keys", "").put("codes", "").putNull("fixed");
        } else if (type.equals("completed") && !node.has("oldParts")) {
            node.putNull("workedMinutes").put("oldParts", CardEvent.OldParts.SHOWN_AND_SCRAPPED.name());
        }
        if (type.equals("out-of-time") && !node.has("planned")) {
            node.put("planned", false);
        }
        if (type.equals("inspected") && !node.has("also")) {
            node.putArray("also");
        }
        return json.treeToValue(node, CardEvent.class);
    }
}
