package knollfield.core.jobcard;

import java.util.List;
import java.util.Optional;
import knollfield.core.bundle.FitCheck;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardEvent.Contingency;
import knollfield.core.jobcard.CardEvent.Found;
import knollfield.core.jobcard.CardEvent.GateOverridden;
import knollfield.core.jobcard.CardEvent.HandedOver;
import knollfield.core.jobcard.CardEvent.Joined;
import knollfield.core.jobcard.CardEvent.Left;
import knollfield.core.jobcard.CardEvent.OwnerAnswered;
import knollfield.core.jobcard.CardEvent.Paused;
import knollfield.core.jobcard.CardEvent.PhotoTaken;
import knollfield.core.jobcard.CardEvent.RecheckAsked;
import knollfield.core.jobcard.CardEvent.Resumed;
import knollfield.core.jobcard.CardEvent.SideFinding;
import knollfield.core.jobcard.CardEvent.Widened;
import knollfield.core.jobcard.CardRefused.Kind;

/** What is entered beside the steps: waits, hand-overs, findings, pictures, what the owner says, and opened gates. */
final class CardAside {

    private static final int LONGEST_BATCH = 60;

    /** Longest words on a card, characters. */
    private static final int LONGEST = 400;

    private final CardState card;
    private final CardEntry entry;

    CardAside(CardState card, CardEntry entry) {
        this.card = card;
        this.entry = entry;
    }

    /** The card after it; empty for an event that answers a step. */
    Optional<CardState> made() {
        CardEvent event = entry.event();
        if (event instanceof Paused e) {
            words(e.words(), false);
            if (card.paused().isPresent()) {
                throw new CardRefused(Kind.PAUSED, "The job waits already.");
            }
            return Optional.of(card.with(Optional.of(e), entry));
        } else if (event instanceof Resumed) {
            if (card.paused().isEmpty()) {
                throw new CardRefused(Kind.WRONG_ANSWER, "The job is not waiting.");
            }
            return Optional.of(card.with(Optional.empty(), entry));
        } else if (event instanceof HandedOver e) {
            words(e.words(), false);
            if (e.to().isBlank() || e.to().equals(entry.by())) {
                throw new CardRefused(Kind.WRONG_ANSWER, "Say who goes on with the job.");
            }
            return Optional.of(card.noted(entry));
        } else if (event instanceof Joined || event instanceof Left) {
            return Optional.of(card.noted(entry));
        } else if (event instanceof Found e) {
            words(e.words(), false);
            e.item().ifPresent(item -> {
                if (card.plan().basis().family().item(item).isEmpty()) {
                    throw new CardRefused(Kind.WRONG_ANSWER, "This engine has no item %s.".formatted(item));
                }
            });
            return Optional.of(card.noted(entry));
        } else if (event instanceof SideFinding e) {
            words(e.words(), true);
            return Optional.of(card.noted(entry));
        } else if (event instanceof Contingency e) {
            words(e.what(), true);
            words(e.part(), false);
            known(e.step());
            if (e.minutes() < 1 || e.minutes() > 2_880) {
                throw new CardRefused(Kind.WRONG_ANSWER, "It adds 1 to 2,880 minutes.");
            }
            if (e.partMinor() < 0) {
                throw new CardRefused(Kind.WRONG_ANSWER, "A price is zero or more.");
            }
            CardState noted = card.noted(entry);
            return Optional.of(e.joint().map(j -> sheared(noted, j)).orElse(noted));
        } else if (event instanceof CardEvent.BatchRead e) {
            words(e.batch(), true);
            if (e.batch().strip().length() > LONGEST_BATCH) {
                throw new CardRefused(Kind.WRONG_ANSWER, "A batch has at most %d characters.".formatted(LONGEST_BATCH));
            }
            if (!card.scope().items().contains(e.item())) {
                throw new CardRefused(Kind.WRONG_ANSWER, "This card does not renew %s.".formatted(e.item()));
            }
            return Optional.of(card.noted(entry));
        } else if (event instanceof CardEvent.PartMeasured e) {
            if (!card.scope().items().contains(e.item())) {
                throw new CardRefused(Kind.WRONG_ANSWER, "This card does not renew %s.".formatted(e.item()));
            }
            if (e.seen().equals(FitCheck.Data.unknown())) {
                throw new CardRefused(Kind.WRONG_ANSWER, "Enter at least one figure of the part.");
            }
            return Optional.of(card.noted(entry));
        } else if (event instanceof CardEvent.ToolFailed e) {
            words(e.words(), false);
            if (!card.plan().toolPieces().contains(e.piece())) {
                throw new CardRefused(Kind.WRONG_ANSWER, "This card needs no tool %s.".formatted(e.piece()));
            }
            return Optional.of(card.noted(entry));
        } else if (event instanceof CardEvent.FromPaper e) {
            words(e.workedBy(), true);
            return Optional.of(card.noted(entry));
        } else if (event instanceof PhotoTaken e) {
            words(e.caption(), false);
            known(e.step());
            return Optional.of(card.noted(entry));
        } else if (event instanceof RecheckAsked e) {
            words(e.what(), true);
            if (e.days() < 0 || e.days() > 366) {
                throw new CardRefused(Kind.WRONG_ANSWER, "A recheck is due in 0 to 366 days.");
            }
            return Optional.of(card.noted(entry));
        } else if (event instanceof Widened e) {
            return Optional.of(
                    card.with(card.scope().widened(e.items()), entry.seq()).noted(entry));
        } else if (event instanceof OwnerAnswered e) {
            return Optional.of(card.with(card.scope().answered(e.agreed(), e.left()), entry.seq())
                    .noted(entry));
        } else if (event instanceof GateOverridden e) {
            return Optional.of(override(e));
        }
        return Optional.empty();
    }

    /** The card is laid anew for a joint a stud or bolt of which broke off. */
    private CardState sheared(CardState noted, String joint) {
        String step = ((Contingency) entry.event()).step();
        boolean there = card.plan()
                .step(step)
                .filter(s -> card.joints(s).containsKey(joint))
                .isPresent();
        if (!there) {
            throw new CardRefused(Kind.WRONG_ANSWER, "This step has no joint %s.".formatted(joint));
        }
        return noted.recorded(List.of(Operation.of(Verb.SHEARED, joint)))
                .with(noted.scope().mishap(), entry.seq());
    }

    private CardState override(GateOverridden e) {
        if (!e.gate().overridable()) {
            throw notAllowed(e.gate(), "Nobody can override \"" + e.gate().words() + "\".");
        }
        if (!entry.manager()) {
            throw notAllowed(e.gate(), "Only the manager can open \"" + e.gate().words() + "\" with words.");
        }
        if (!card.plan().gatePositions().containsKey(e.gate())) {
            throw new CardRefused(
                    Kind.UNKNOWN_STEP, "This card has no gate \"" + e.gate().words() + "\".");
        }
        if (e.words().isBlank()) {
            throw new CardRefused(Kind.WRONG_ANSWER, "An opened gate needs words; they are printed on the record.");
        }
        words(e.words(), true);
        return card.opened(e, entry);
    }

    private static CardRefused notAllowed(GateKind gate, String message) {
        return new CardRefused(Kind.NOT_ALLOWED, message, Optional.of(gate), Optional.empty());
    }

    private void known(String step) {
        if (card.plan().step(step).isEmpty()) {
            throw new CardRefused(Kind.UNKNOWN_STEP, "This card has no step " + step + ".");
        }
    }

    /** Refuses words that are too long, or missing where they are the point. */
    static void words(String words, boolean needed) {
        if (needed && words.isBlank()) {
            throw new CardRefused(Kind.WRONG_ANSWER, "This needs a few words.");
        }
        if (words.length() > LONGEST) {
            throw new CardRefused(Kind.WRONG_ANSWER, "That is longer than %d characters.".formatted(LONGEST));
        }
    }
}
