<p>Years</p>
