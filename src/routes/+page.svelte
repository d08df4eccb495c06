<h1>Orange Stair</h1>
