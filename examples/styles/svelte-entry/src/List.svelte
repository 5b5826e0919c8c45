<p>List</p>
