"""British and American names: both findable, the garden shows the one its people use (common practice, no source)."""

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.bridge.services import crops
from cloche.bridge.values import texts


@pytest.mark.parametrize(
    ("key", "american", "british"),
    [
        ("eggplant", "Eggplant", "Aubergine"),
        ("broad_bean", "Fava bean", "Broad bean"),
        ("rocket", "Arugula", "Rocket"),
        ("swede", "Rutabaga", "Swede"),
        ("beet", "Beet", "Beetroot"),
        ("coriander", "Cilantro", "Coriander"),
        ("carrot", "Carrot", "Carrot"),
    ],
)
def test_a_crop_has_its_name_on_both_sides_of_the_ocean(key: str, american: str, british: str) -> None:
    for spoken, name in ((crops.AMERICAN, american), (crops.BRITISH, british)):
        crops.set_spoken_names(spoken)
        assert crops.crop(key).name == name
        other = {american, british} - {name}
        assert set(crops.crop(key).other_names) == other


def test_what_is_said_goes_by_the_language() -> None:
    assert crops.usual_names("en-us") == crops.AMERICAN
    assert {crops.usual_names(language) for language in ("en-gb", "en", "en-au")} == {crops.BRITISH}
    assert crops.usual_names("de") == crops.TRANSLATED


@pytest.mark.django_db
def test_a_garden_may_choose_and_the_list_of_crops_shows_both(signed_in: Client, garden: Garden) -> None:
    page = signed_in.get(reverse("my_crops", args=[garden.pk])).content.decode()
    assert "Aubergine <span" in page
    assert "(Eggplant)" in page
    Garden.objects.filter(pk=garden.pk).update(names=Garden.Names.AMERICAN)
    page = signed_in.get(reverse("my_crops", args=[garden.pk])).content.decode()
    assert "Eggplant <span" in page
    assert "(Aubergine)" in page


def test_another_language_has_crops_by_their_british_names(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(
        texts, "_lookup", [lambda sentence: {"Aubergine": "Melanzana", "aubergines": "melanzane"}.get(sentence, sentence)]
    )
    crops.set_spoken_names(crops.usual_names("it"))
    assert (crops.crop("eggplant").name, crops.crop("eggplant").name_plural) == ("Melanzana", "melanzane")
    assert crops.crop("pea").name == "Pea"
