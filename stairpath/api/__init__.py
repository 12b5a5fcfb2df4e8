"""FastAPI routers, Pydantic shapes, server-sent events."""
