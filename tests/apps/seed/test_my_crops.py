"""Choosing what a garden grows."""

from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.bridge.services.crops import chosen, crops
from tests.conftest import NOW
from tests.factories import make_place, read_twice_daily


def test_until_any_is_chosen_the_usual_ones_are_ticked(signed_in: Client, garden: Garden) -> None:
    page = signed_in.get(reverse("my_crops", args=[garden.pk])).content.decode()
    assert page.count(" checked") == len(chosen())
    assert page.count('type="checkbox" name="crops"') == len(crops())
    assert f"{len(chosen())} of {len(crops())} are ticked" in page


def test_forecasts_and_pages_keep_to_what_is_chosen(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden)
    read_twice_daily(place, 5, NOW, 8.0, 13.0)
    signed_in.post(reverse("my_crops", args=[garden.pk]), {"crops": ["pak_choi", "potato_first_early"]})
    changed = Place.objects.get(pk=place.pk)
    assert changed.input_revision > place.input_revision
    refresh(changed)
    assert set(CropOutlook.objects.filter(place=place).values_list("crop_key", flat=True)) == {"pak_choi", "potato_first_early"}
    for name, args in (("place", [garden.pk, place.pk]), ("what_wakes", [garden.pk])):
        page = signed_in.get(reverse(name, args=args)).content.decode()
        assert "Pak choi" in page
        assert "Carrot" not in page
    assert signed_in.get(reverse("crop_in_place", args=[garden.pk, place.pk, "potato_first_early"])).status_code == 200


def test_none_at_all_is_refused_and_so_is_what_is_no_crop(signed_in: Client, garden: Garden) -> None:
    for sent, said in (({}, "Tick at least one crop"), ({"crops": ["unicorn"]}, "unicorn is not one of the available choices")):
        response = signed_in.post(reverse("my_crops", args=[garden.pk]), sent)
        assert response.status_code == 422
        assert said in response.content.decode()
    assert Garden.objects.get(pk=garden.pk).crops == []


def test_strangers_do_not_choose(client: Client, garden: Garden) -> None:
    assert client.get(reverse("my_crops", args=[garden.pk])).status_code == 302
