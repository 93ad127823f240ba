package knollfield.app.vehicle;

/**
 * Somebody else who speaks for a fleet, beside the contact that stands with it.
 *
 * @param role what about, such as "night shift"; may be empty, as phone and e-mail may
 */
public record FleetContact(String name, String role, String phone, String email) {}
