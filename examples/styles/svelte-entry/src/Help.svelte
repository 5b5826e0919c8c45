<p>Help</p>
