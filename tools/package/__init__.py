"""What Yew Hour is given out as: wheel, source archive, Debian package. `./yew package` makes them."""
