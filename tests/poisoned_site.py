"""``axis_path.serving`` with studies that end the process that draws them; see ``template.py``."""

from axis_path.serving.__main__ import main
from tests.template import poison

if __name__ == "__main__":
    poison()
    main()
