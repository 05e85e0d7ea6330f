/** Stylesheets in tests of screens: jsdom lays nothing out. */
export default {};
