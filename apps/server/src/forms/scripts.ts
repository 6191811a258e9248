/**
 * Counts who began, and tells a framing page how high the form is. Without it the form works all the same.
 */
export const FORM_SCRIPT = `(function () {
  var form = document.querySelector('form'), last = 0;
  if (form) form.addEventListener('input', function () {
    var url = form.action.split('?')[0] + '/begun';
    if (navigator.sendBeacon) navigator.sendBeacon(url);
  }, { once: true });
  if (parent === window) return;
  var body = document.body, tell = function () {
    var height = body.offsetHeight;
    if (height === last) return;
    last = height;
    parent.postMessage({ goodWordForm: location.pathname, height: height }, '*');
  };
  tell();
  new ResizeObserver(tell).observe(body);
})();`;

/** For the page that embeds: puts the frame where the script stands and keeps it as high as the form. */
export const FRAME_SCRIPT = `(function () {
  var script = document.currentScript, url = new URL(script.src), frame = document.createElement('iframe');
  frame.src = url.origin + '/join/' + script.dataset.form + '?frame=1';
  frame.title = script.dataset.title || 'Sign up';
  frame.style.cssText = 'width:100%;border:0;min-height:420px';
  script.parentNode.insertBefore(frame, script);
  addEventListener('message', function (m) {
    var ours = m.origin === url.origin && m.source === frame.contentWindow;
    if (ours && m.data && m.data.goodWordForm) frame.style.height = m.data.height + 'px';
  });
})();`;
