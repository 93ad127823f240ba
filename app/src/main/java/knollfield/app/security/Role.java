package knollfield.app.security;

/** What a person may do. */
public enum Role {
    MANAGER,
    FRONT_DESK,
    TECHNICIAN,
    FLEET_CONTACT
}
