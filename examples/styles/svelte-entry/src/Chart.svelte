<p>Chart</p>
