/** The flag that says when something was logged last in this browser. */
export const LAST_LOGGED = "last-logged";
