"""The judging path runs on the standard library alone."""

import subprocess
import sys

from tests.core.rows import REFERENCE

PROGRAM = """
import sys
class Block:
    def find_spec(self, name, path=None, target=None):
        if name.split('.')[0] in {'numpy', 'scipy', 'pint', 'uncertainties', 'django', 'ninja', 'psycopg'}:
            raise ImportError(f'{name} is blocked')
sys.meta_path.insert(0, Block())
try:
    import numpy
except ImportError:
    pass
else:
    raise SystemExit('the block does not block')
from tests.core.rows import SOUND, judge
import havrin_core.command, havrin_core.tape.bundle, havrin_core.physics.calculations
from havrin_core.wording.closing import standing_title
print(standing_title(judge(*SOUND)), standing_title(judge(*SOUND, 'found crack')), sep='|')
"""


def test_judging_with_everything_else_blocked():
    root = REFERENCE.parent.parent
    done = subprocess.run(
        [sys.executable, "-c", PROGRAM],
        cwd=root,
        env={"PYTHONPATH": f"{root}/core:{root}"},
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    assert done.stdout.strip() == "Leave running|Shut down and tag"
