"""Addresses of accounts. Their names are those by which allauth knows them."""

from allauth.account import views as account
from allauth.mfa.base import views as mfa
from allauth.mfa.recovery_codes import views as codes
from allauth.mfa.totp import views as totp
from allauth.mfa.webauthn import views as webauthn
from allauth.usersessions import views as devices
from django.urls import path, re_path

from cloche.apps.accounts import entrance, views

urlpatterns = [
    path("welcome/", entrance.welcome, name="welcome"),
    path("join/<str:token>/", entrance.join, name="join"),
    path("me/", entrance.me, name="me"),
    path("sign-in/", views.SignIn.as_view(), name="sign_in"),
    path("sign-in/", views.SignIn.as_view(), name="account_login"),
    path("sign-out/", views.SignOut.as_view(), name="sign_out"),
    path("sign-in/closed/", account.account_inactive, name="account_inactive"),
    path("sign-in/code/", mfa.authenticate, name="mfa_authenticate"),
    path("sign-in/passkey/", webauthn.login_webauthn, name="mfa_login_webauthn"),
    path("sign-in/forgotten/", account.password_reset, name="account_reset_password"),
    path("sign-in/forgotten/sent/", account.password_reset_done, name="account_reset_password_done"),
    path("sign-in/forgotten/done/", account.password_reset_from_key_done, name="account_reset_password_from_key_done"),
    re_path(
        r"^sign-in/forgotten/(?P<uidb36>[0-9A-Za-z]{1,13})-(?P<key>[^/]{1,120})/$",
        account.password_reset_from_key,
        name="account_reset_password_from_key",
    ),
    path("me/password/", account.password_change, name="account_change_password"),
    path("me/mail/", account.email, name="account_email"),
    path("me/mail/sent/", account.email_verification_sent, name="account_email_verification_sent"),
    re_path(r"^me/mail/(?P<key>[-:\w]{1,120})/$", account.confirm_email, name="account_confirm_email"),
    path("me/sure/", account.reauthenticate, name="account_reauthenticate"),
    path("me/sure/code/", mfa.reauthenticate, name="mfa_reauthenticate"),
    path("me/sure/passkey/", webauthn.reauthenticate_webauthn, name="mfa_reauthenticate_webauthn"),
    path("me/second/", mfa.index, name="mfa_index"),
    path("me/second/phone/", totp.activate_totp, name="mfa_activate_totp"),
    path("me/second/phone/off/", totp.deactivate_totp, name="mfa_deactivate_totp"),
    path("me/second/spare/", codes.view_recovery_codes, name="mfa_view_recovery_codes"),
    path("me/second/spare/new/", codes.generate_recovery_codes, name="mfa_generate_recovery_codes"),
    path("me/second/spare/cloche-spare-codes.txt", codes.download_recovery_codes, name="mfa_download_recovery_codes"),
    path("me/second/passkeys/", webauthn.list_webauthn, name="mfa_list_webauthn"),
    path("me/second/passkeys/new/", webauthn.add_webauthn, name="mfa_add_webauthn"),
    path("me/second/passkeys/<int:pk>/", webauthn.edit_webauthn, name="mfa_edit_webauthn"),
    path("me/second/passkeys/<int:pk>/away/", webauthn.remove_webauthn, name="mfa_remove_webauthn"),
    path("me/devices/", devices.list_usersessions, name="usersessions_list"),
]
