"""What leaves the shop on paper: certificate and label."""
