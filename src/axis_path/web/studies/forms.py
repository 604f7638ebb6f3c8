"""Forms of the list of studies."""

from flask_wtf import FlaskForm
from wtforms import StringField
from wtforms.validators import DataRequired, Length


class TitleForm(FlaskForm):  # type: ignore[misc]  # the base has no types
    """The title of a study."""

    title = StringField(
        "Title",
        validators=[
            DataRequired("A study needs a title."),
            Length(max=200, message="A title has at most 200 characters."),
        ],
        filters=[lambda text: " ".join(text.split()) if text else text],
    )
