<p>On paper</p>
