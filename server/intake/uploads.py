"""Uploads go straight to disk, and stop at the limit."""

from __future__ import annotations

from django.conf import settings
from django.core.files.uploadhandler import TemporaryFileUploadHandler
from rest_framework.exceptions import APIException


class TooLarge(APIException):
    """The upload passes the limit."""

    status_code = 413

    def __init__(self, name: str) -> None:
        most = settings.UPLOAD_MOST_BYTES // 1_000_000
        super().__init__(f"{name}: is larger than the {most} MB that are taken. Send it in parts.")


class LimitedUpload(TemporaryFileUploadHandler):
    """Streams to a temporary file; refuses as soon as the limit is passed."""

    received = 0

    def receive_data_chunk(self, raw_data: bytes, start: int) -> None:
        """Write one chunk. Raises TooLarge."""
        self.received += len(raw_data)
        if self.received > settings.UPLOAD_MOST_BYTES:
            raise TooLarge(str(self.file_name))
        super().receive_data_chunk(raw_data, start)
