/** What has just happened, for the eye and for screen readers, and what could not be done. */
class Say {
  text = $state('');
  trouble = $state('');

  done(text: string): void {
    this.text = text;
    this.trouble = '';
  }

  failed(text: string): void {
    this.trouble = text;
  }
}

export const say = new Say();
