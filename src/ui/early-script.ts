/** Runs before anything can be typed. A field works once React has put its properties on it. */
export const EARLY_SCRIPT = `(function () {
  var early = (window.polydromeEarly = { fields: new Map(), form: null, told: null, next: null, waking: false });
  function works(e) { for (var k in e) if (k.indexOf('__reactProps$') === 0) return true; return false; }
  function tell() { if (early.told) early.told(); }
  function note(event) {
    var t = event.target;
    if (!('value' in t) || works(t) || early.waking) return;
    early.fields.set(t, t.type === 'checkbox' || t.type === 'radio' ? t.checked : t.value);
    tell();
  }
  // A field that works by now may have been drawn again without what was noted of it: that is put back before more comes to it.
  document.addEventListener('beforeinput', function (event) {
    var t = event.target;
    if (early.next && early.fields.has(t) && works(t)) early.next(t);
  }, true);
  document.addEventListener('input', note, true);
  document.addEventListener('change', note, true);
  document.addEventListener('submit', function (event) {
    if (works(event.target)) return;
    event.preventDefault();
    early.form = event.target;
    tell();
  }, true);
})();`;
