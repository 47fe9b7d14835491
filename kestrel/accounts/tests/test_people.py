"""Several cooks in one kitchen: invited, named, let go; their passwords; a device they share."""

from datetime import timedelta
from typing import Any

from django.utils import timezone

from kestrel.accounts.models import Invite, Membership, User
from kestrel.accounts.people import LASTS
from kestrel.tests.clients import PASSWORD, JsonClient, KitchenTest
from saucier.testing import CHEESE_SAUCE

NEW = "lower-meadow-77"


class PeopleTest(KitchenTest):
    def link(self, **for_whom: Any) -> str:
        made = self.client.call("POST", "/people/invites", for_whom)
        self.assertEqual(made.status_code, 201, made.content)
        return str(made.body["path"]).removeprefix("/join/")

    def joined(self, username: str = "tove", **more: str) -> JsonClient:
        client = JsonClient()
        body = {"token": self.link(), "username": username, "password": NEW, **more}
        answer = client.call("POST", "/people/join", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        return client


class Inviting(PeopleTest):
    def test_a_link_lets_somebody_in_once_and_their_name_is_on_what_they_do(self) -> None:
        token = self.link()
        self.assertFalse(Invite.objects.filter(digest__contains=token).exists())
        client = JsonClient()
        told = client.call("GET", f"/people/join/{token}").body
        self.assertEqual(told, {"kitchen": "Lower kitchen", "for_name": None})
        body = {"token": token, "username": "tove", "called": "Tove", "password": NEW}
        client.call("POST", "/people/join", body)
        made = client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE}).body
        [version] = self.client.call("GET", f"/sauces/{made['id']}/versions").body
        self.assertEqual(version["made_by"], "Tove")
        again = JsonClient().call("POST", "/people/join", {**body, "username": "eve"})
        self.assertEqual(self.fields(again), ["token"])
        self.assertEqual(client.call("GET", f"/people/join/{token}").status_code, 404)

    def test_it_expires_and_can_be_taken_back(self) -> None:
        token = self.link()
        Invite.objects.update(expires_at=timezone.now() - timedelta(seconds=1))
        body = {"token": token, "username": "tove", "password": NEW}
        self.assertEqual(self.fields(JsonClient().call("POST", "/people/join", body)), ["token"])
        token = self.link()
        [row] = self.client.call("GET", "/people").body["invites"]
        self.assertLess(Invite.objects.get(pk=row["id"]).expires_at, timezone.now() + LASTS)
        gone = self.client.call("DELETE", f"/people/invites/{row['id']}")
        self.assertEqual(gone.status_code, 204)
        body["token"] = token
        self.assertEqual(self.fields(JsonClient().call("POST", "/people/join", body)), ["token"])
        self.assertEqual(User.objects.count(), 2)

    def test_what_is_wrong_is_named_and_the_link_still_counts(self) -> None:
        token = self.link()
        body = {"token": token, "username": "ada", "password": "short", "called": "x" * 61}
        refused = JsonClient().call("POST", "/people/join", body)
        self.assertEqual(self.fields(refused), ["username", "called", "password"])
        self.assertEqual(JsonClient().call("GET", f"/people/join/{token}").status_code, 200)

    def test_only_owners_invite_and_let_go(self) -> None:
        tove = self.joined()
        ada = self.user.pk
        for method, path, body in (
            ("POST", "/people/invites", {}),
            ("DELETE", f"/people/{ada}", None),
            ("PUT", f"/people/{ada}", {"owner": False}),
        ):
            refused = tove.call(method, path, body)
            self.assertEqual(refused.status_code, 403, path)
            self.assertIn("owner", refused.body["message"])
        listed = tove.call("GET", "/people").body
        self.assertEqual((listed["may"], listed["invites"]), (False, []))
        self.assertEqual(
            [(one["username"], one["you"]) for one in listed["people"]],
            [("ada", False), ("tove", True)],
        )
        # Nobody of another kitchen is seen or touched.
        for method, body in (("DELETE", None), ("PUT", {"owner": False})):
            other = self.other.call(method, f"/people/{ada}", body)
            self.assertEqual(self.fields(other), ["id"])
        self.assertEqual(len(self.other.call("GET", "/people").body["people"]), 1)

    def test_let_go_is_signed_out_and_stays_named(self) -> None:
        tove = self.joined(called="Tove")
        made = tove.call("POST", "/sauces", {"sheet": CHEESE_SAUCE}).body
        row = User.objects.get(username="tove")
        self.assertEqual(self.client.call("DELETE", f"/people/{row.pk}").status_code, 204)
        self.assertEqual(tove.call("GET", "/sauces").status_code, 401)
        entered = JsonClient().call(
            "POST", "/accounts/sign-in", {"username": "tove", "password": NEW}
        )
        self.assertEqual(entered.status_code, 422)
        [version] = self.client.call("GET", f"/sauces/{made['id']}/versions").body
        self.assertEqual(version["made_by"], "Tove")

    def test_links_of_who_is_let_go_open_no_way_back(self) -> None:
        tove = self.joined()
        row = User.objects.get(username="tove")
        for act in (
            ("PUT", f"/people/{row.pk}", {"owner": False}),
            ("DELETE", f"/people/{row.pk}", None),
        ):
            self.client.call("PUT", f"/people/{row.pk}", {"owner": True})
            link = tove.call("POST", "/people/invites", {}).body["path"].removeprefix("/join/")
            self.client.call(*act)
            body = {"token": link, "username": "tove-again", "password": NEW}
            self.assertEqual(
                self.fields(JsonClient().call("POST", "/people/join", body)), ["token"]
            )

    def test_there_is_always_an_owner(self) -> None:
        ada = self.user.pk
        self.assertEqual(self.fields(self.client.call("DELETE", f"/people/{ada}")), ["owner"])
        self.joined()
        tove = User.objects.get(username="tove").pk
        made = self.client.call("PUT", f"/people/{tove}", {"owner": True})
        self.assertEqual([one["owner"] for one in made.body["people"]], [True, True])
        self.assertEqual(self.client.call("DELETE", f"/people/{ada}").status_code, 204)
        self.assertEqual(Membership.objects.get(kitchen=self.kitchen).user_id, tove)


class Passwords(PeopleTest):
    def test_changed_here_it_signs_out_everywhere_else(self) -> None:
        elsewhere = self.signed_in(self.user)
        for old, new, field in (("wrong", NEW, "old"), (PASSWORD, "short", "new")):
            refused = self.client.call("POST", "/people/me/password", {"old": old, "new": new})
            self.assertEqual(self.fields(refused), [field])
        body = {"old": PASSWORD, "new": NEW}
        changed = self.client.call("POST", "/people/me/password", body)
        self.assertEqual(changed.status_code, 204)
        self.assertEqual(self.client.call("GET", "/sauces").status_code, 200)
        self.assertEqual(elsewhere.call("GET", "/sauces").status_code, 401)
        entered = elsewhere.call("POST", "/accounts/sign-in", {"username": "ada", "password": NEW})
        self.assertEqual(entered.status_code, 200)

    def test_a_forgotten_one_is_renewed_by_a_link(self) -> None:
        tove = self.joined(called="Tove")
        token = self.link(for_id=User.objects.get(username="tove").pk)
        told = JsonClient().call("GET", f"/people/join/{token}").body
        self.assertEqual(told["for_name"], "Tove")
        client = JsonClient()
        client.call("POST", "/people/join", {"token": token, "password": "another-ridge-5"})
        self.assertEqual(client.call("GET", "/accounts/me").body["username"], "tove")
        self.assertEqual(tove.call("GET", "/sauces").status_code, 401)
        foreign = self.client.call("POST", "/people/invites", {"for_id": self.stranger.pk})
        self.assertEqual(self.fields(foreign), ["for_id"])

    def test_signed_out_everywhere(self) -> None:
        elsewhere = self.signed_in(self.user)
        for _ in range(2):
            gone = self.client.call("POST", "/people/me/sign-out-everywhere")
            self.assertEqual(gone.status_code, 204)
            for client in (self.client, elsewhere):
                self.assertEqual(client.call("GET", "/sauces").status_code, 401)
            self.user.refresh_from_db()
            self.client, elsewhere = self.signed_in(self.user), self.signed_in(self.user)
        self.assertEqual(self.other.call("GET", "/sauces").status_code, 200)


class SharedDevice(PeopleTest):
    def test_it_asks_who_cooks_and_what_is_done_carries_their_name(self) -> None:
        self.joined(called="Tove")
        tove = User.objects.get(username="tove")
        self.client.call("PUT", "/people/here/shared", {"shared": True})
        who = self.client.call("GET", "/accounts/me").body
        self.assertEqual((who["shared"], who["called"]), (True, None))
        self.client.call("PUT", "/people/here/cooking", {"id": tove.pk})
        self.assertEqual(self.client.call("GET", "/accounts/me").body["called"], "Tove")
        made = self.client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE}).body
        [version] = self.client.call("GET", f"/sauces/{made['id']}/versions").body
        self.assertEqual(version["made_by"], "Tove")
        self.client.call("PUT", "/people/here/cooking", {"id": None})
        self.assertIsNone(self.client.call("GET", "/accounts/me").body["called"])
        foreign = self.client.call("PUT", "/people/here/cooking", {"id": self.stranger.pk})
        self.assertEqual(foreign.status_code, 404)

    def test_it_opens_nothing_that_is_an_owners_or_somebodys_own(self) -> None:
        self.client.call("PUT", "/people/here/shared", {"shared": True})
        for method, path, body in (
            ("POST", "/people/invites", {}),
            ("POST", "/people/me/password", {"old": PASSWORD, "new": NEW}),
            ("POST", "/people/me/sign-out-everywhere", None),
            ("PUT", "/people/me/called", {"called": "Eve"}),
            ("DELETE", f"/people/{self.user.pk}", None),
        ):
            refused = self.client.call(method, path, body)
            self.assertEqual(refused.status_code, 403, path)
            self.assertIn("share", refused.body["message"])
        self.assertFalse(self.client.call("GET", "/people").body["may"])

    def test_it_is_somebodys_own_again_by_the_password_only(self) -> None:
        self.client.call("PUT", "/people/here/shared", {"shared": True})
        for password in ("", "guess" * 3):
            body = {"shared": False, "password": password}
            refused = self.client.call("PUT", "/people/here/shared", body)
            self.assertEqual(self.fields(refused), ["password"])
            self.assertFalse(self.client.call("GET", "/people").body["may"])
        body = {"shared": False, "password": PASSWORD}
        self.assertEqual(self.client.call("PUT", "/people/here/shared", body).status_code, 204)
        self.assertTrue(self.client.call("GET", "/people").body["may"])

    def test_nobody_cooks_under_anothers_name_on_a_device_of_their_own(self) -> None:
        tove = self.joined(called="Tove")
        tove.call("PUT", "/people/here/cooking", {"id": self.user.pk})
        made = tove.call("POST", "/sauces", {"sheet": CHEESE_SAUCE}).body
        [version] = self.client.call("GET", f"/sauces/{made['id']}/versions").body
        self.assertEqual(version["made_by"], "Tove")

    def test_after_a_shift_it_asks_again(self) -> None:
        self.client.call("PUT", "/people/here/shared", {"shared": True})
        self.client.call("PUT", "/people/here/cooking", {"id": self.user.pk})
        session = self.client.session
        session["cooking"] = [self.user.pk, timezone.now().timestamp() - 1]
        session.save()
        self.assertIsNone(self.client.call("GET", "/accounts/me").body["called"])
