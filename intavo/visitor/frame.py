"""The page of a sandboxed frame that foreign markup stands in: it takes the markup in, and says how high it
is.
"""

from csp.decorators import csp_exempt
from django.http import HttpRequest, HttpResponse
from django.views.decorators.clickjacking import xframe_options_exempt
from django.views.decorators.http import require_safe

# Opaque whoever opens it: what stands in it never has Intavo's own origin.
_POLICY = "sandbox allow-scripts allow-forms allow-popups allow-popups-to-escape-sandbox"
_PAGE = """<!doctype html><meta charset="utf-8"><title>More</title><script>
const key = location.hash.slice(1)
addEventListener('message', function take(event) {
  if (!key || !event.data || event.data.intavo !== 'markup' || event.data.key !== key) return
  removeEventListener('message', take)
  document.open()
  document.write('<!doctype html><meta name="viewport" content="width=device-width,initial-scale=1">' +
    '<style>body{margin:0;overflow-wrap:anywhere}img,video{max-width:100%}</style>' + event.data.html)
  document.close()
  const root = document.documentElement
  const tell = () => parent.postMessage({ intavo: 'height', height: root.offsetHeight }, '*')
  new ResizeObserver(tell).observe(root)
  tell()
})
parent.postMessage({ intavo: 'ready' }, '*')
</script>"""


@csp_exempt()
@xframe_options_exempt
@require_safe
def page(request: HttpRequest) -> HttpResponse:
    """The empty frame."""
    response = HttpResponse(_PAGE)
    response["Content-Security-Policy"] = _POLICY
    response["Cache-Control"] = "no-cache"
    return response
