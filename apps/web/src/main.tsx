document.body.append('hi');
