throw new Error('There is no sharp here: pictures are not made smaller on the server.');
