<p>A plot</p>
