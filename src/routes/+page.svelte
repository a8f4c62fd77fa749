<h1>Zygaster</h1>
