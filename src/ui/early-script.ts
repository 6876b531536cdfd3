/** Runs before anything can be typed. A field works once React has put its properties on it. */
export const EARLY_SCRIPT = `(function () {
  var early = (window.polydromeEarly = { fields: new Map(), form: null, told: null });
  function works(e) { for (var k in e) if (k.indexOf('__reactProps$') === 0) return true; return false; }
  function tell() { if (early.told) early.told(); }
  function note(event) {
    var t = event.target;
    // What is typed on in a field that works by now is newer than what was noted of it.
    if (!('value' in t) || (works(t) && !early.fields.has(t))) return;
    early.fields.set(t, t.type === 'checkbox' || t.type === 'radio' ? t.checked : t.value);
    tell();
  }
  document.addEventListener('input', note, true);
  document.addEventListener('change', note, true);
  document.addEventListener('submit', function (event) {
    if (works(event.target)) return;
    event.preventDefault();
    early.form = event.target;
    tell();
  }, true);
})();`;
