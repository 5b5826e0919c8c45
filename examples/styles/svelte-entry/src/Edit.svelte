<p>Edit</p>
