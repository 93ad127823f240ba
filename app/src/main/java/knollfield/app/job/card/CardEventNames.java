package knollfield.app.job.card;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Arrays;
import java.util.Locale;
import knollfield.core.jobcard.CardEvent;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.jsontype.NamedType;

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
}
