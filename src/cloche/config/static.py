"""Static files under names that change with what is in them; our scripts import each other by these names."""

from __future__ import annotations

from django.contrib.staticfiles.storage import ManifestStaticFilesStorage


class HashedFiles(ManifestStaticFilesStorage):
    """Static files with a hash in their name, for STORAGES."""

    support_js_module_import_aggregation = True
    # Our own alone: packages ship scripts whose comments show imports of files that are not there.
    _js_module_import_aggregation_patterns = ("js/*.js", ManifestStaticFilesStorage._js_module_import_aggregation_patterns[1])  # type: ignore[attr-defined]
