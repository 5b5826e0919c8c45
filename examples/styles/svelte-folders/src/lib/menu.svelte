<nav>Dunes</nav>
