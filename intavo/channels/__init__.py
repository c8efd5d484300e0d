"""Ways to reach the business."""
